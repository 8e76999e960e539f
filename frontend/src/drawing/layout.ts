/** Where things go on the sheet: the scale, and labels kept from covering each other. */
import type { LengthUnit } from "@/base/units";

export interface Sheet {
  /** Pixels to a millimetre. */
  scale: number;
  /** The cake's axis, in pixels from the left. */
  axis: number;
  /** The table, in pixels from the top. */
  table: number;
}

export interface Room {
  width: number;
  height: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The largest scale at which a cake of this width and height stands inside the room, and where. */
export function fit(widthMm: number, heightMm: number, room: Room): Sheet {
  const across = Math.max(40, room.width - room.left - room.right);
  const up = Math.max(40, room.height - room.top - room.bottom);
  const scale = Math.min(across / widthMm, up / heightMm);
  const slack = (up - heightMm * scale) / 2;
  return { scale, axis: room.left + across / 2, table: room.height - room.bottom - slack * 0.6 };
}

/**
 * Moves labels apart so that none covers its neighbour, each as near to where it wants to be as that allows, all of
 * them between `least` and `most`. `gap` is how high a label is, of all or of each. Returns the middles in the order
 * given.
 */
export function spread(
  wanted: readonly number[],
  gap: number | readonly number[],
  least: number,
  most: number,
): number[] {
  const high = (index: number): number => (typeof gap === "number" ? gap : (gap[index] ?? 0));
  const order = wanted.map((_, index) => index).sort((a, b) => (wanted[a] ?? 0) - (wanted[b] ?? 0));
  const placed = new Array<number>(wanted.length).fill(0);
  // With one height for all, the bounds hold the middles; with a height each, their edges.
  const inset = (index: number): number => (typeof gap === "number" ? 0 : high(index) / 2);
  let above = -Infinity;
  let before = -1;
  for (const index of order) {
    const apart = before < 0 ? 0 : (high(before) + high(index)) / 2;
    above = Math.max(wanted[index] ?? 0, least + inset(index), above + apart);
    placed[index] = above;
    before = index;
  }
  let below = Infinity;
  let after = -1;
  for (const index of order.toReversed()) {
    const apart = after < 0 ? 0 : (high(after) + high(index)) / 2;
    below = Math.min(placed[index] ?? 0, most - inset(index), below - apart);
    placed[index] = below;
    after = index;
  }
  return placed;
}

export interface Tick {
  mm: number;
  long: boolean;
  words: string;
}

const RULERS: Record<LengthUnit, { mm: number; long: number; unit: string; factor: number }> = {
  in: { mm: 12.7, long: 2, unit: "in", factor: 1 },
  cm: { mm: 10, long: 5, unit: "cm", factor: 5 },
  mm: { mm: 10, long: 5, unit: "mm", factor: 50 },
};

/** The marks of a height gauge in the ruler's own unit, numbered where there is room for numbers. */
export function ticks(heightMm: number, unit: LengthUnit, scale: number, room = 38): Tick[] {
  const ruler = RULERS[unit];
  const every = Math.max(1, Math.ceil(room / (ruler.mm * ruler.long * scale)));
  const marks: Tick[] = [];
  for (let index = 0; index * ruler.mm <= heightMm; index += 1) {
    const major = index / ruler.long;
    const long = Number.isInteger(major);
    const numbered = long && major > 0 && major % every === 0;
    marks.push({ mm: index * ruler.mm, long, words: numbered ? String(major * ruler.factor) : "" });
  }
  return marks;
}

/** A place right of the axis, in pixels from the left. */
export function xAt(sheet: Sheet, mm: number): number {
  return sheet.axis + mm * sheet.scale;
}

/** A height above the table, in pixels from the top. */
export function yAt(sheet: Sheet, mm: number): number {
  return sheet.table - mm * sheet.scale;
}

/** A line through points, each set in its place across and up. */
export function through(
  points: readonly (readonly number[])[],
  x: (mm: number) => number,
  y: (mm: number) => number,
): string {
  return `M${points.map(([right = 0, up = 0]) => `${x(right).toFixed(2)} ${y(up).toFixed(2)}`).join("L")}`;
}

/** A closed path of points, each set in its place across and up. */
export function closed(
  points: readonly (readonly number[])[],
  x: (mm: number) => number,
  y: (mm: number) => number,
): string {
  return `${through(points, x, y)}Z`;
}

/** A closed path of points in mm, mirrored to the left of the axis when asked. */
export function path(points: readonly (readonly number[])[], sheet: Sheet, mirrored = false): string {
  const sign = mirrored ? -1 : 1;
  return closed(
    points,
    (mm) => xAt(sheet, sign * mm),
    (mm) => yAt(sheet, mm),
  );
}

/** A tier that stands off the middle of the cake is drawn so. */
export function shifted(off: readonly number[] | undefined, sheet: Sheet): string | undefined {
  const mm = off?.[0] ?? 0;
  return mm ? `translate(${mm * sheet.scale} 0)` : undefined;
}
