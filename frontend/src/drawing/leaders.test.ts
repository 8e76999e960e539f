import { describe, expect, it } from "vitest";
import type { Annotation } from "./annotations";
import { leaderOf } from "./leaders";

const SHEET = { scale: 2, axis: 100, table: 500 };
const note = (more: Partial<Annotation>): Annotation => ({
  label: "coat",
  figure: {} as Annotation["figure"],
  mark: "height",
  box: { x0: 0, x1: 50, z0: 10, z1: 110 },
  ...more,
});
/** The last place a path names, across and down. */
const numbers = (path: string): number[] => (path.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);

describe("leaders", () => {
  it("bracket a height from its foot to its top, beside the box, and end short of the words", () => {
    const { bracket, leader, dot } = leaderOf(note({}), SHEET, 320, 300);
    expect(dot).toBeNull();
    const [, top, , line, , foot] = numbers(bracket);
    expect([top, foot]).toEqual([500 - 2 * 110, 500 - 2 * 10]);
    expect(line).toBeGreaterThan(100 + 2 * 50);
    expect(numbers(leader)).toEqual([line, 500 - 2 * 60, 282, 320, 296]);
  });

  it("stand farther out for every step, and never turn back on themselves", () => {
    const [near, far] = [0, 8].map((step) => numbers(leaderOf(note({ step }), SHEET, 320, 220).leader));
    expect(far?.[0]).toBe((near?.[0] ?? 0) + 80);
    for (const path of [near, far]) expect(path?.[2]).toBeGreaterThanOrEqual(path?.[0] ?? 0);
  });

  it("lead from a dot in the box, so far across it as is said", () => {
    const { bracket, dot } = leaderOf(note({ mark: "point", at: 0.2 }), SHEET, 320, 300);
    expect(bracket).toBe("");
    expect(dot).toEqual([100 + 2 * 10, 500 - 2 * 60]);
  });
});
