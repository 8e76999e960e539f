/** The week as a day sheet: a lane for each order, and a column of words for each pair of hands. */
import type { Entry, Sheet } from "@/drawing/daySheet";
import { PLACE_ORDER } from "@/drawing/daySheet";
import { PLACES } from "@/order/placeWords";
import type { Found } from "@/order/week";

/** Orders go by letters: A is due first. */
export const letterOf = (lane: number): string =>
  `${lane >= 26 ? String.fromCharCode(64 + Math.floor(lane / 26)) : ""}${String.fromCharCode(65 + (lane % 26))}`;

const handsKey = (hand: number): string => `hands ${hand}`;

export function weekSheet(
  steps: readonly Found[],
  hands: readonly string[],
  words: (iso: string) => string,
): Sheet {
  const entries = steps.map(({ id, order, lane, step }): Entry => ({
    id,
    name: `${letterOf(lane)} ${step.name}`,
    look: step.look,
    place: step.place,
    start: step.start,
    end: step.end,
    spans: step.spans,
    follows: step.follows.map((before) => `${order.id} ${before}`),
    works: step.minutes !== null,
    words: handsKey(step.hand ?? 1),
    took: step.minutes === null ? "" : `${step.minutes} min`,
    column: step.place === "bench" ? handsKey(step.hand ?? 1) : step.place,
    lane,
    whole: false,
    mark: letterOf(lane),
  }));
  const columns = PLACE_ORDER.flatMap((place) =>
    place === "bench"
      ? hands.map((title, index) => ({ key: handsKey(index + 1), title, worded: true }))
      : entries.some((one) => one.column === place)
        ? [{ key: place, title: PLACES[place], worded: false }]
        : [],
  );
  const orders = new Map(steps.map(({ order, lane }) => [order.id, { order, lane }]));
  const until = [...orders.values()].map(({ order, lane }) => ({
    ready: order.ready,
    due: order.due,
    words: `${letterOf(lane)} due ${words(order.due)}`,
  }));
  return { entries, columns, until, allWays: false };
}
