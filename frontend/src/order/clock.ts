/** The clock of the order on the bench: when to do what, counted back from its due hour. */
import { defineStore } from "pinia";
import { computed, ref, toRaw } from "vue";
import { answered, api } from "@/api/client";
import type { Clock, Pace, TimedStep } from "@/api/types";
import { neighbour } from "@/base/neighbour";
import { momentCode } from "@/base/time";
import { useKit } from "@/kitchen/kit";
import { useAsked } from "./asked";
import { useOrder } from "./order";

export const useClock = defineStore("clock", () => {
  const order = useOrder();
  const kit = useKit();
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

  const asked = useAsked<Clock>({
    ask,
    place: () => order.id,
    old: "These hours are from before.",
    // While another order is being worked out, these hours may move.
    unfinished: (found) => found.checks.some((check) => check.code === "clock.pending"),
  });
  const { found: clock, trouble, busy, awaited, refresh } = asked;
  const steps = computed(() =>
    Object.entries(clock.value?.steps ?? {}).map(([id, step]: [string, TimedStep]) => ({ id, step })),
  );
  const work = computed(() => steps.value.filter(({ step }) => step.hands));
  const chosen = computed(() => clock.value?.steps[selected.value]);

  /** How well the fridge or the freezer cools, if the coat at a step took so many minutes. Throws Refused. */
  async function paceOf(step: string, took_min: number): Promise<Pace | null> {
    if (!order.document) return null;
    const body = { document: toRaw(order.document), kit: toRaw(kit.kit), step, took_min };
    return (await answered(api.POST("/api/clock/pace", { body }))) as Pace;
  }

  /** Select the step that comes so many places after the one selected, in the order of the clock. */
  function move(by: number): void {
    const ids = steps.value.map(({ id }) => id);
    selected.value = neighbour(ids, selected.value, by);
  }

  return { clock, trouble, busy, awaited, selected, steps, work, chosen, refresh, paceOf, move };
});
