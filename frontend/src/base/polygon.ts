/** Closed lines of corners, as they are drawn by hand: where one lies, and what can be done to all of it at once. */

import { tenth } from "./round";

export type Corner = [number, number];
type Corners = readonly (readonly number[])[];

export interface Bounds {
  left: number;
  right: number;
  low: number;
  high: number;
}

export function boundsOf(corners: Corners): Bounds {
  const xs = corners.map(([x = 0]) => x);
  const ys = corners.map(([, y = 0]) => y);
  return { left: Math.min(...xs), right: Math.max(...xs), low: Math.min(...ys), high: Math.max(...ys) };
}

/** Every corner cut off, a quarter of the way along both of its edges; the line along the foot keeps its ends. */
export function rounded(corners: Corners): Corner[] {
  const { low, high } = boundsOf(corners);
  const foot = low + 0.002 * (high - low);
  return corners.flatMap(([x = 0, y = 0], index): Corner[] => {
    const [x0 = 0, y0 = 0] = corners.at(index - 1) ?? [];
    const [x1 = 0, y1 = 0] = corners[(index + 1) % corners.length] ?? [];
    if (y <= foot && (y0 <= foot || y1 <= foot)) return [[x, y]];
    const part = (from: number, to: number): number => tenth(from + (to - from) / 4);
    return [
      [part(x, x0), part(y, y0)],
      [part(x, x1), part(y, y1)],
    ];
  });
}

/** Left and right changed about. */
export function mirrored(corners: Corners): Corner[] {
  const { left, right } = boundsOf(corners);
  return corners.map(([x = 0, y = 0]): Corner => [tenth(left + right - x), y]).reverse();
}

/** How far two corners lie apart. */
export function apart(one: Corner, other: Corner): number {
  return Math.hypot(one[0] - other[0], one[1] - other[1]);
}
