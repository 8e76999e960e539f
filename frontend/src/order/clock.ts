/** The clock of the order on the bench: when to do what, counted back from its due hour. */
import { defineStore } from "pinia";
import { computed, ref, toRaw } from "vue";
import { answered, api } from "@/api/client";
import type { Clock, Pace, TimedStep } from "@/api/types";
import { momentCode } from "@/base/time";
import { useKit } from "@/kitchen/kit";
import { useAsked } from "./asked";
import { useOrder } from "./order";

const TICK_MS = 20_000;
const SOON_MS = 2000;

export const useClock = defineStore("clock", () => {
  const order = useOrder();
  const kit = useKit();
  const now = ref(new Date());
  const selected = ref("");

  /** Nothing where the order has no due hour: there is nothing to count back from. */
  async function ask(signal: AbortSignal): Promise<Clock | null> {
    if (!order.document?.due) return null;
    const body = {
      document: toRaw(order.document),
      kit: toRaw(kit.kit),
      now: momentCode(new Date()),
      order: order.id || null,
    };
    return (await answered(api.POST("/api/clock", { body, signal }))) as Clock;
  }

  let soon: ReturnType<typeof setTimeout> | undefined;
  /** While another order is worked out these hours may move, so they are asked for again. */
  function came(): void {
    clearTimeout(soon);
    if (asked.found.value?.checks.some((check) => check.code === "clock.pending"))
      soon = setTimeout(() => void asked.refresh(), SOON_MS);
  }
  const asked = useAsked<Clock>({ ask, place: () => order.id, old: "These hours are from before.", came });
  const { found: clock, trouble, busy, awaited, refresh } = asked;
  const steps = computed<[string, TimedStep][]>(() => Object.entries(clock.value?.steps ?? {}));
  const work = computed(() => steps.value.filter(([, step]) => step.hands));
  const chosen = computed(() => clock.value?.steps[selected.value]);

  /** How well the fridge or the freezer cools, if the coat at a step took so many minutes. Throws Refused. */
  async function paceOf(step: string, took_min: number): Promise<Pace | null> {
    if (!order.document) return null;
    const body = { document: toRaw(order.document), kit: toRaw(kit.kit), step, took_min };
    return (await answered(api.POST("/api/clock/pace", { body }))) as Pace;
  }

  /** Keep the time while somebody looks; gives back what stops it. */
  function keepTime(): () => void {
    now.value = new Date();
    const timer = setInterval(() => (now.value = new Date()), TICK_MS);
    return () => clearInterval(timer);
  }

  /** Select the step that comes so many places after the one selected, in the order of the clock. */
  function move(by: number): void {
    const ids = steps.value.map(([id]) => id);
    const at = ids.indexOf(selected.value);
    const next = at < 0 ? (by > 0 ? 0 : ids.length - 1) : Math.min(Math.max(at + by, 0), ids.length - 1);
    selected.value = ids[next] ?? "";
  }

  return {
    clock,
    trouble,
    busy,
    awaited,
    now,
    selected,
    steps,
    work,
    chosen,
    refresh,
    paceOf,
    keepTime,
    move,
  };
});
