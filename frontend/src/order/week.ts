/** The week of the kitchen: when to do what for every order that is due in it. */
import { defineStore } from "pinia";
import { computed, ref } from "vue";
import { answered, api } from "@/api/client";
import type { Week, WeekOrder, WeekStep } from "@/api/types";
import { dayCode, momentCode } from "@/base/time";
import { useAsked } from "./asked";

const DAYS = 7;
const DAY_MS = 86_400_000;

/** A step of an order of the week. */
export interface Found {
  id: string;
  order: WeekOrder;
  /** The place of its order among those of the week, from 0. */
  lane: number;
  step: WeekStep;
}

export const useWeek = defineStore("week", () => {
  const first = ref(dayCode(new Date()));
  const selected = ref("");

  const asked = useAsked<Week>({
    ask: async (signal) => {
      const query = { first: first.value, days: DAYS, now: momentCode(new Date()) };
      return (await answered(api.GET("/api/week", { params: { query }, signal }))) as Week;
    },
    place: () => first.value,
    old: "These hours are from before.",
  });
  const { found: week, trouble, busy, awaited, refresh } = asked;
  const steps = computed<Found[]>(() =>
    (week.value?.orders ?? [])
      .flatMap((order, lane) =>
        Object.entries(order.steps).map(([id, step]) => ({ id: `${order.id} ${id}`, order, lane, step })),
      )
      .sort((one, other) => one.step.start.localeCompare(other.step.start)),
  );
  const chosen = computed(() => steps.value.find((one) => one.id === selected.value));

  /** Look at the seven days so many weeks on. */
  function turn(weeks: number): void {
    first.value = dayCode(new Date(new Date(`${first.value}T12:00`).getTime() + weeks * DAYS * DAY_MS));
    void refresh();
  }

  /** Select the step that comes so many places after the one selected. */
  function move(by: number): void {
    const at = steps.value.findIndex((one) => one.id === selected.value);
    const last = steps.value.length - 1;
    const next = at < 0 ? (by > 0 ? 0 : last) : Math.min(Math.max(at + by, 0), last);
    selected.value = steps.value[next]?.id ?? "";
  }

  return { week, first, trouble, busy, awaited, refresh, selected, steps, chosen, turn, move };
});
