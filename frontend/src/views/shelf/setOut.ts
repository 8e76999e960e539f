/** Orders set out on shelves, the first due at the upper left, all to one scale. */
import type { Card } from "@/api/types";
import { dayWords } from "@/base/time";

/** So far apart two orders stand, and no card is narrower, in pixels. */
export const GAP = 34;
const LEAST_CELL = 150;
/** A cake so much taller than the middle one is drawn smaller, so that it does not shrink the rest. */
const GIANT = 2.2;
/** How high the tallest stands at most and at least, and the least a row takes, in pixels. */
const [MOST, LEAST, LEAST_ROW] = [380, 230, 60];
/** No shelf is lower than for a cake so high, and one that cannot be shown takes the room of one so wide, mm. */
const SMALL = 200;

export interface Standing {
  card: Card;
  /** Pixels to a millimetre, and how wide its card is. */
  scale: number;
  cell: number;
  /** Drawn smaller than the rest. */
  smaller: boolean;
  /** The day it is due, where the one before it is due on another; else nothing. */
  heading: string;
}

const wide = (card: Card): number => card.outside?.base_diameter.value ?? SMALL;
const high = (card: Card): number => card.outside?.height.value ?? 0;

/** As high as any is drawn at the scale of the rest, mm. */
function tallestOf(cards: readonly Card[]): number {
  const heights = cards.map(high).toSorted((a, b) => a - b);
  const middle = heights[Math.floor(heights.length / 2)] ?? 0;
  return Math.max(SMALL, ...heights.filter((one) => heights.length < 3 || one <= GIANT * middle));
}

/** As many rows as they need in that width, each with how high it is in pixels. */
export function setOut(cards: readonly Card[], width: number): { cards: Standing[]; high: number }[] {
  const tallest = tallestOf(cards);
  const shrunk = (card: Card): number => Math.min(1, tallest / Math.max(1, high(card)));
  const across = cards.reduce((sum, card) => sum + wide(card) * shrunk(card), 0);
  // As large as lets every cake stand on one shelf, or the tallest fit a lower one.
  const oneShelf = (width - GAP * cards.length) / Math.max(across, 1);
  const scale = Math.min(MOST / tallest, Math.max(oneShelf * 0.98, LEAST / tallest));
  const rows: { cards: Standing[]; high: number }[] = [];
  let [left, before] = [0, ""];
  for (const card of cards) {
    const cell = Math.max(LEAST_CELL, wide(card) * shrunk(card) * scale + 2);
    if (!rows.length || left < cell + GAP) {
      rows.push({ cards: [], high: LEAST_ROW * scale + 2 });
      left = width;
    }
    left -= cell + GAP;
    const day = card.due ? dayWords(new Date(card.due)) : "No day yet";
    const row = rows.at(-1);
    row?.cards.push({
      card,
      scale: scale * shrunk(card),
      cell,
      smaller: shrunk(card) < 1,
      heading: day === before ? "" : day,
    });
    if (row) row.high = Math.max(row.high, high(card) * shrunk(card) * scale + 2);
    before = day;
  }
  return rows;
}
