/** A closed line of corners of which some are smooth: it runs through those in a curve.
 *
 * The same stands in the core, `geometry/flat/curved.py`, which has the formula; tests/curves.json checks both.
 */
import type { Corner } from "./polygon";

type Corners = readonly (readonly number[])[];

const at = (corners: Corners, index: number): Corner => {
  const [x = 0, y = 0] = corners.at(index % corners.length) ?? [];
  return [x, y];
};

/** Which way the circle through a corner and its neighbours runs there, of length 1; nothing where they are one. */
function runs(corners: Corners, index: number): Corner {
  const [[xa, ya], [x, y], [xb, yb]] = [at(corners, index - 1), at(corners, index), at(corners, index + 1)];
  const before = (x - xa) ** 2 + (y - ya) ** 2;
  const after = (xb - x) ** 2 + (yb - y) ** 2;
  if (!before || !after) return [0, 0];
  const across = (x - xa) / before + (xb - x) / after;
  const along = (y - ya) / before + (yb - y) / after;
  const long = Math.hypot(across, along);
  return long ? [across / long, along / long] : [0, 0];
}

/** A handle along a way, as long as makes an arc of a circle over the chord; without a way a third of the chord. */
function handle(way: Corner, chord: Corner): Corner {
  const apart = Math.hypot(...chord);
  if (!apart || (!way[0] && !way[1])) return [chord[0] / 3, chord[1] / 3];
  const turned = (way[0] * chord[0] + way[1] * chord[1]) / apart;
  const long = (2 * apart) / (3 * (1 + Math.max(0, turned)));
  return [way[0] * long, way[1] * long];
}

/** The two handles of the curve from a corner to the next; nothing where it is straight. */
export function handlesAfter(
  corners: Corners,
  smooth: ReadonlySet<number>,
  index: number,
): [Corner, Corner] | undefined {
  const after = (index + 1) % corners.length;
  if (!smooth.has(index) && !smooth.has(after)) return undefined;
  const [[x0, y0], [x1, y1]] = [at(corners, index), at(corners, after)];
  const chord: Corner = [x1 - x0, y1 - y0];
  const out = handle(smooth.has(index) ? runs(corners, index) : [0, 0], chord);
  const back = handle(smooth.has(after) ? runs(corners, after) : [0, 0], chord);
  return [
    [x0 + out[0], y0 + out[1]],
    [x1 - back[0], y1 - back[1]],
  ];
}

/** The whole line, as a path that SVG draws; `x` and `y` place it. */
export function curvePath(
  corners: Corners,
  smooth: ReadonlySet<number>,
  x: (mm: number) => number,
  y: (mm: number) => number,
): string {
  const place = ([right, up]: Corner): string => `${x(right).toFixed(2)} ${y(up).toFixed(2)}`;
  const pieces = corners.map((_, index) => {
    const to = place(at(corners, index + 1));
    const handles = handlesAfter(corners, smooth, index);
    return handles ? `C${place(handles[0])} ${place(handles[1])} ${to}` : `L${to}`;
  });
  return corners.length ? `M${place(at(corners, 0))}${pieces.join("")}Z` : "";
}

/** A place of the line between a corner and the next, at a share of the way. */
function placeOn(corners: Corners, smooth: ReadonlySet<number>, index: number, share: number): Corner {
  const [from, to] = [at(corners, index), at(corners, index + 1)];
  const [first, second] = handlesAfter(corners, smooth, index) ?? [from, to];
  const left = 1 - share;
  const along = (which: 0 | 1): number =>
    left ** 3 * from[which] +
    3 * left ** 2 * share * first[which] +
    3 * left * share ** 2 * second[which] +
    share ** 3 * to[which];
  return [along(0), along(1)];
}

const STEPS = 24;

/** The line as corners close together, where it is curved. */
export function traced(corners: Corners, smooth: ReadonlySet<number>): Corner[] {
  return corners.flatMap((_, index) => {
    const steps = handlesAfter(corners, smooth, index) ? STEPS : 1;
    return Array.from({ length: steps }, (_, step) => placeOn(corners, smooth, index, step / steps));
  });
}

/** The middle of the line between a corner and the next. */
export function middleOf(corners: Corners, smooth: ReadonlySet<number>, index: number): Corner {
  return placeOn(corners, smooth, index, 0.5);
}

/** Which corners are smooth once there is another after one; it is smooth itself between two that are. */
export function smoothWithAfter(smooth: readonly number[], index: number, count: number): number[] {
  const moved = smooth.map((one) => (one > index ? one + 1 : one));
  const between = smooth.includes(index) && smooth.includes((index + 1) % count);
  return between ? [...moved, index + 1].toSorted((a, b) => a - b) : moved;
}

/** Which are once one is gone. */
export function smoothWithout(smooth: readonly number[], index: number): number[] {
  return smooth.filter((one) => one !== index).map((one) => (one > index ? one - 1 : one));
}
