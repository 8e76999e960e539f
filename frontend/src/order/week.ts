/** The week of the kitchen: when to do what for every order that is due in it. */
import { defineStore } from "pinia";
import { computed, ref } from "vue";
import { answered, api } from "@/api/client";
import type { Week, WeekOrder, WeekStep } from "@/api/types";
import { neighbour } from "@/base/neighbour";
import { dayCode, momentCode } from "@/base/time";
import { useAsked } from "./asked";

export const DAYS = 7;
const DAY_MS = 86_400_000;

/** A step of an order of the week. */
export interface Found {
  id: string;
  order: WeekOrder;
  /** The place of its order among those of the week, from 0. */
  lane: number;
  /** What it is called among the steps of its order. */
  name: string;
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
    // While some order is being worked out, these hours may move.
    unfinished: (found) => found.pending.length > 0,
  });
  const { found: week, trouble, busy, awaited, refresh } = asked;
  const steps = computed<Found[]>(() =>
    (week.value?.orders ?? [])
      .flatMap((order, lane) =>
        Object.entries(order.steps).map(([id, step]) => ({
          id: `${order.id} ${id}`,
          name: id,
          order,
          lane,
          step,
        })),
      )
      .sort((one, other) => one.step.start.localeCompare(other.step.start)),
  );
  const chosen = computed(() => steps.value.find((one) => one.id === selected.value));

  /** Look at the seven days from a day on. */
  function from(day: string): void {
    if (!day) return;
    first.value = day;
    void refresh();
  }

  /** Look at the seven days so many weeks on. */
  const turn = (weeks: number): void =>
    from(dayCode(new Date(new Date(`${first.value}T12:00`).getTime() + weeks * DAYS * DAY_MS)));

  /** Select the step that comes so many places after the one selected. */
  function move(by: number): void {
    const ids = steps.value.map(({ id }) => id);
    selected.value = neighbour(ids, selected.value, by);
  }

  return { week, first, trouble, busy, awaited, refresh, selected, steps, chosen, from, turn, move };
});
