/** Better hours for the week: looked for, seen first, and pinned only on purpose. */
import { defineStore } from "pinia";
import { ref, shallowRef, watch } from "vue";
import { answered, api, fieldWordsOf } from "@/api/client";
import { lastOf } from "@/api/parts";
import { Newest } from "@/base/newest";
import { momentCode } from "@/base/time";
import { DAYS, useWeek } from "./week";

const AWAY = "The kitchen's server cannot be reached just now. Nothing was changed; try again.";

/** Better hours: those to pin, by order and by block, as (hands, spans), and what they would move. */
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

export const useBetter = defineStore("better", () => {
  const week = useWeek();
  /** What was found better, once it was looked for: nothing (null), or not looked for yet (undefined). */
  const found = shallowRef<Better | null>();
  const searching = ref(false);
  /** How many better ones were found so far, each better than the one before. */
  const count = ref(0);
  const trouble = ref("");
  const search = new Newest();

  /** Look for better hours; the orders in `begun` keep theirs. */
  async function look(begun: readonly string[]): Promise<void> {
    const signal = search.begin();
    searching.value = true;
    found.value = undefined;
    trouble.value = "";
    count.value = 0;
    try {
      const body = { first: week.first, days: DAYS, now: momentCode(new Date()), begun: [...begun] };
      const call = api.POST("/api/week/better", { body, signal, parseAs: "stream" });
      const last = await lastOf<Better | null, { found: number }>(
        await answered(call),
        (part) => (count.value = part.found),
        "better",
      );
      if (!signal.aborted) found.value = last;
    } catch (error) {
      if (!signal.aborted) trouble.value = fieldWordsOf(error, AWAY);
    } finally {
      if (search.is(signal)) searching.value = false;
    }
  }

  /** Look no longer, and let go of what was found. */
  function letGo(): void {
    search.begin();
    searching.value = false;
    found.value = undefined;
    trouble.value = "";
  }

  async function choose(hours: Better["hours"] | Record<string, null>): Promise<void> {
    try {
      await answered(api.PUT("/api/week/hours", { body: { hours } }));
      letGo();
      await week.refresh();
    } catch (error) {
      trouble.value = fieldWordsOf(error, AWAY);
    }
  }

  /** Keep what was found. */
  const keep = async (): Promise<void> => (found.value ? choose(found.value.hours) : undefined);
  /** Give up the hours that were kept: every order is placed as late as possible again. */
  const giveUp = (): Promise<void> =>
    choose(Object.fromEntries((week.week?.orders ?? []).map((order) => [order.id, null])));

  watch(() => week.first, letGo);

  return { found, searching, count, trouble, look, letGo, keep, giveUp };
});
