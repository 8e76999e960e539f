/** The running heights of a tier, as many of them as there is room for, and where each meets its wall. */
import type { Figure, Silhouette, TierPlan } from "@/api/types";
import { crossings } from "./annotations";
import { leftOf } from "./tone";

export interface Height {
  name: string;
  up: Figure;
  /** Where it is above the table and how far left of the tier's axis its wall stands there, mm. */
  z: number;
  reach: number;
}

/** A line at the very top or foot of a tier meets its wall so much within it, mm. */
const WITHIN = 0.3;

/** Where a wall stands at a height; at its top and foot, just within them. */
function wallAt(outline: readonly (readonly number[])[], z: number): number {
  const heights = outline.map(([, up = 0]) => up);
  const [low, high] = [Math.min(...heights) + WITHIN, Math.max(...heights) - WITHIN];
  return crossings(outline, Math.min(Math.max(z, low), high))[0] ?? 0;
}

/** Thinned out to so many: fillings go first, then every other, the first and the last staying. */
export function thinned<T extends { name: string }>(marks: readonly T[], most: number): T[] {
  if (marks.length <= most) return [...marks];
  const solid = marks.filter(({ name }) => !name.startsWith("Filling"));
  if (solid.length <= most) return solid;
  const step = (solid.length - 1) / Math.max(1, most - 1);
  return Array.from({ length: most }, (_, at) => solid[Math.round(at * step)] as T);
}

/** The heights of one tier from its foot; none of a drum on its side, whose layers do not lie one above the other. */
export function heightsOf(tier: TierPlan, seen: Silhouette, most: number): Height[] {
  if (tier.foot) return [];
  const outline = leftOf(seen);
  return thinned(Object.values(tier.gauge), most).map(({ name, up }) => {
    const z = tier.stack.bottom.value + up.value;
    return { name, up, z, reach: wallAt(outline, z) };
  });
}
