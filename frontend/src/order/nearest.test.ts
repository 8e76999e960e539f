import { expect, test } from "vitest";
import { nearestTo } from "./nearest";

const levels = [0, 2, 4, 6].map((up_mm) => ({ up_mm }));

test("any height lies within half a step of the one that is found", () => {
  for (let up = 0; up <= 6; up += 0.1) {
    expect(Math.abs((nearestTo(levels, up)?.up_mm ?? 99) - up)).toBeLessThanOrEqual(1.0001);
  }
});

test("beyond the ends it is the end, and of none there is none", () => {
  expect(nearestTo(levels, -5)?.up_mm).toBe(0);
  expect(nearestTo(levels, 50)?.up_mm).toBe(6);
  const none: { up_mm: number }[] = [];
  expect(nearestTo(none, 3)?.up_mm).toBe(undefined);
});
