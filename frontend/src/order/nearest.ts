/** The nearest of what is known at some heights. */
export function nearestTo<T extends { up_mm: number }>(levels: readonly T[], up: number): T | undefined {
  let best: T | undefined;
  for (const one of levels) if (!best || Math.abs(one.up_mm - up) < Math.abs(best.up_mm - up)) best = one;
  return best;
}
