/** The week as a day sheet: orders go by letters, and each pair of hands has a column of words. */
import { type Entry, PLACE_ORDER, type Sheet } from "@/drawing/daySheet";
import { PLACES } from "@/order/placeWords";
import type { Found } from "@/order/week";

/** Orders go by letters: A is due first. */
export const letterOf = (lane: number): string =>
  `${lane >= 26 ? String.fromCharCode(64 + Math.floor(lane / 26)) : ""}${String.fromCharCode(65 + (lane % 26))}`;

const handsKey = (hand: number): string => `hands ${hand}`;

/**
 * In every column, a lane for each thing that stands there: the first that is free, or the one where something of the
 * same order and tier stood before, if that is free.
 */
function inLanes(entries: readonly Entry[], what: (entry: Entry) => string): Entry[] {
  const until = new Map<string, string[]>();
  const before = new Map<string, number>();
  return [...entries]
    .sort((one, other) => one.start.localeCompare(other.start))
    .map((entry) => {
      const lanes = until.get(entry.column) ?? [];
      const free = (lane: number): boolean => (lanes[lane] ?? "") <= entry.start;
      const mine = `${entry.column} ${what(entry)}`;
      const again = before.get(mine);
      let lane = again !== undefined && free(again) ? again : lanes.findIndex((_, at) => free(at));
      if (lane < 0) lane = lanes.length;
      lanes[lane] = entry.end;
      until.set(entry.column, lanes);
      before.set(mine, lane);
      return { ...entry, lane };
    });
}

export function weekSheet(
  steps: readonly Found[],
  hands: readonly string[],
  words: (iso: string) => string,
): Sheet {
  const entries = steps.map(({ id, order, lane, step }): Entry => ({
    id,
    name: `${letterOf(lane)} ${step.name}`,
    look: step.look,
    state: step.state,
    place: step.place,
    start: step.start,
    end: step.end,
    spans: step.spans,
    follows: step.follows.map((before) => `${order.id} ${before}`),
    works: step.minutes !== null,
    words: handsKey(step.hand ?? 1),
    took: step.minutes === null ? "" : `${step.minutes} min`,
    column: step.place === "bench" && step.hand ? handsKey(step.hand) : step.place,
    lane,
    whole: false,
    mark: letterOf(lane),
  }));
  const own = hands.map((title, index) => ({
    key: handsKey(index + 1),
    title,
    worded: true,
    single: true,
  }));
  const columns = PLACE_ORDER.flatMap((place) => [
    ...(place === "bench" ? own : []),
    ...(entries.some((one) => one.column === place)
      ? [{ key: place, title: PLACES[place], worded: false }]
      : []),
  ]);
  const orders = new Map(steps.map(({ order, lane }) => [order.id, { order, lane }]));
  const until = [...orders.values()].map(({ order, lane }) => ({
    ready: order.ready,
    due: order.due,
    words: `${letterOf(lane)} due ${words(order.due)}`,
  }));
  const whose = new Map(steps.map(({ id, order, step }) => [id, `${order.id} ${step.tier ?? ""}`]));
  const placed = inLanes(entries, ({ id }) => whose.get(id) ?? id);
  return { entries: placed, columns, until, allWays: false, ownLanes: true };
}
