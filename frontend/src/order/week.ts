/** The week of the kitchen: when to do what for every order that is due in it. */
import { defineStore } from "pinia";
import { computed, ref, shallowRef } from "vue";
import { answered, api, fieldWordsOf } from "@/api/client";
import { lastOf } from "@/api/parts";
import type { Week, WeekOrder, WeekStep } from "@/api/types";
import { Newest } from "@/base/newest";
import { dayCode, momentCode } from "@/base/time";
import { useAsked } from "./asked";

const DAYS = 7;
const DAY_MS = 86_400_000;
const SOON_MS = 1500;

/** Better hours: those to keep, by order and by block, as (hands, spans), and what they would move. */
export interface Better {
  hours: Record<string, Record<string, [number, [number, number][]]>>;
  moved: {
    id: string;
    title: string;
    begins: string;
    would_begin: string;
    steps: number;
    fresher_min: number;
  }[];
}

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

  let soon: ReturnType<typeof setTimeout> | undefined;
  const asked = useAsked<Week>({
    ask: async (signal) => {
      const query = { first: first.value, days: DAYS, now: momentCode(new Date()) };
      return (await answered(api.GET("/api/week", { params: { query }, signal }))) as Week;
    },
    place: () => first.value,
    old: "These hours are from before.",
    came: () => {
      clearTimeout(soon);
      if (asked.found.value?.pending.length) soon = setTimeout(() => void asked.refresh(), SOON_MS);
    },
  });
  /** While some order is worked out its hours may move, so they are asked for again. */
  const { found: week, trouble, busy, awaited, refresh } = asked;
  const steps = computed<Found[]>(() =>
    (week.value?.orders ?? [])
      .flatMap((order, lane) =>
        Object.entries(order.steps).map(([id, step]) => ({ id: `${order.id} ${id}`, order, lane, step })),
      )
      .sort((one, other) => one.step.start.localeCompare(other.step.start)),
  );
  const chosen = computed(() => steps.value.find((one) => one.id === selected.value));

  /** Look at the seven days from a day on. */
  function from(day: string): void {
    if (!day) return;
    letGo();
    first.value = day;
    void refresh();
  }

  /** Look at the seven days so many weeks on. */
  const turn = (weeks: number): void =>
    from(dayCode(new Date(new Date(`${first.value}T12:00`).getTime() + weeks * DAYS * DAY_MS)));

  /** Select the step that comes so many places after the one selected. */
  function move(by: number): void {
    const at = steps.value.findIndex((one) => one.id === selected.value);
    const last = steps.value.length - 1;
    const next = at < 0 ? (by > 0 ? 0 : last) : Math.min(Math.max(at + by, 0), last);
    selected.value = steps.value[next]?.id ?? "";
  }

  /** What was found better, once it was looked for: nothing (null), or not looked for yet (undefined). */
  const better = shallowRef<Better | null>();
  const searching = ref(false);
  /** How many better ones were found so far, each better than the one before. */
  const foundBetter = ref(0);
  const betterTrouble = ref("");
  const search = new Newest();

  /** Look for better hours; the orders in `begun` keep theirs. */
  async function look(begun: readonly string[]): Promise<void> {
    const signal = search.begin();
    searching.value = true;
    better.value = undefined;
    betterTrouble.value = "";
    foundBetter.value = 0;
    try {
      const body = { first: first.value, days: DAYS, now: momentCode(new Date()), begun: [...begun] };
      const call = api.POST("/api/week/better", { body, signal, parseAs: "stream" });
      const found = await lastOf<Better | null, { found: number }>(
        await answered(call),
        (part) => (foundBetter.value = part.found),
        "better",
      );
      if (!signal.aborted) better.value = found;
    } catch (error) {
      if (!signal.aborted)
        betterTrouble.value = fieldWordsOf(
          error,
          "The kitchen's server cannot be reached just now. Nothing was changed; try again.",
        );
    } finally {
      if (search.is(signal)) searching.value = false;
    }
  }

  /** Look no longer, and let go of what was found. */
  function letGo(): void {
    search.begin();
    searching.value = false;
    better.value = undefined;
    betterTrouble.value = "";
  }

  async function choose(hours: Better["hours"] | Record<string, null>): Promise<void> {
    try {
      await answered(api.PUT("/api/week/hours", { body: { hours } }));
      letGo();
      await refresh();
    } catch (error) {
      betterTrouble.value = fieldWordsOf(
        error,
        "The kitchen's server cannot be reached just now. Nothing was changed; try again.",
      );
    }
  }

  /** Keep what was found. */
  const keep = async (): Promise<void> => (better.value ? choose(better.value.hours) : undefined);
  /** Give up the hours that were kept: every order is placed as late as possible again. */
  const giveUp = (): Promise<void> =>
    choose(Object.fromEntries((week.value?.orders ?? []).map((order) => [order.id, null])));

  return { week, first, trouble, busy, awaited, refresh, selected, steps, chosen, from, turn, move, better, searching, foundBetter, betterTrouble, look, letGo, keep, giveUp }; // prettier-ignore
});
