/** The lines of the plate: engraving that tapers, the lit rim of a tier, shines along a filling, marks at corners. */
import { boxOf } from "./annotations";
import { bandsUp } from "./tone";

type Points = readonly (readonly number[])[];
type Pixels = readonly (readonly [number, number])[];

const joined = (points: Pixels): string =>
  points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L");

/** A line through points, as wide at its last as is said, and pointed at its first. */
export function tapered(points: Pixels, wide: number): string {
  const last = Math.max(1, points.length - 1);
  const side = (by: number): Pixels => points.map(([x, y], at) => [x + (by * wide * at) / last, y]);
  return `M${joined(side(-0.5))}L${joined([...side(0.5)].reverse())}Z`;
}

/** The rim of a half outline that light falls on: all of it above so many mm below its top, where that is flat. */
export function rimOf(outline: Points, deep: number): [number, number][] {
  const { x1, z0, z1 } = boxOf(outline);
  const high = z1 - z0;
  const flat = Math.max(...outline.filter(([, z = 0]) => z > z1 - 1e-6).map(([x = 0]) => x));
  if (high <= 2 * deep || flat < 0.5 * x1) return [];
  return (
    bandsUp(
      [
        ["", 1 - deep / high],
        ["", deep / high],
      ],
      outline,
    )[1]?.edge ?? []
  );
}

/** A shine along a strip, a third of the way down and from near its left end on; nothing where it is too thin. */
export function shine(left: number, right: number, top: number, bottom: number, far = 0.55): string {
  const [wide, high] = [right - left, bottom - top];
  if (high < 4 || wide < 16) return "";
  return `M${(left + 4).toFixed(1)} ${(top + high * 0.3).toFixed(1)}H${(left + 4 + (wide - 8) * far).toFixed(1)}`;
}

/** Marks at the corners of a box, outside it. */
export function corners(left: number, top: number, right: number, bottom: number, off = 7): string {
  const [x0, y0, x1, y1] = [left - off, top - off, right + off, bottom + off];
  const arm = Math.max(5, Math.min(18, (x1 - x0) / 3, (y1 - y0) / 3));
  return (
    `M${x0} ${y0 + arm}V${y0}H${x0 + arm}M${x1 - arm} ${y0}H${x1}V${y0 + arm}` +
    `M${x1} ${y1 - arm}V${y1}H${x1 - arm}M${x0 + arm} ${y1}H${x0}V${y1 - arm}`
  );
}
