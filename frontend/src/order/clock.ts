/** The clock of the order on the bench: when to do what, counted back from its due hour. */
import { defineStore } from "pinia";
import { computed, ref, shallowRef, toRaw } from "vue";
import { answered, api, fieldWordsOf, isBusy } from "@/api/client";
import type { Clock, TimedStep } from "@/api/types";
import { Newest } from "@/base/newest";
import { useKit } from "@/kitchen/kit";
import { useOrder } from "./order";

const ASK_AGAIN_MS = 1500;
const TICK_MS = 20_000;

/** A moment as the clock on the wall shows it, as the server reads it. */
export function wallTime(date: Date): string {
  const two = (number: number): string => String(number).padStart(2, "0");
  const day = `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
  return `${day}T${two(date.getHours())}:${two(date.getMinutes())}:00`;
}

export const useClock = defineStore("clock", () => {
  const order = useOrder();
  const kit = useKit();
  const clock = shallowRef<Clock | null>(null);
  const trouble = ref("");
  const busy = ref(false);
  /** The order that the clock on screen is of. */
  let shownFor = "";
  const now = ref(new Date());
  const selected = ref("");
  const newest = new Newest();

  const steps = computed<[string, TimedStep][]>(() => Object.entries(clock.value?.steps ?? {}));
  const work = computed(() => steps.value.filter(([, step]) => step.hands));
  const chosen = computed(() => clock.value?.steps[selected.value]);

  /** Ask again. Only the newest answer counts; what was there stays on screen until it comes. */
  async function refresh(): Promise<void> {
    const document = order.document;
    if (!document) return;
    const signal = newest.begin();
    if (shownFor !== order.id) clock.value = null;
    if (!document.due) {
      clock.value = null;
      trouble.value = "";
      return;
    }
    busy.value = true;
    try {
      const body = { document: toRaw(document), kit: toRaw(kit.kit), now: wallTime(new Date()) };
      const found = (await answered(api.POST("/api/clock", { body, signal }))) as Clock;
      if (signal.aborted) return;
      clock.value = found;
      shownFor = order.id;
      trouble.value = "";
      if (!found.steps[selected.value]) selected.value = "";
    } catch (error) {
      if (signal.aborted) return;
      if (isBusy(error)) {
        newest.later(refresh, ASK_AGAIN_MS);
        return;
      }
      trouble.value = fieldWordsOf(
        error,
        "The kitchen's server cannot be reached just now. These hours are from before.",
      );
    } finally {
      if (newest.is(signal)) busy.value = false;
    }
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

  return { clock, trouble, busy, now, selected, steps, work, chosen, refresh, keepTime, move };
});
