import { describe, expect, it } from "vitest";
import cases from "../../../tests/curves.json";
import { curvePath, handlesAfter, middleOf, smoothWithAfter, smoothWithout, traced } from "./curve";
import { boundsOf } from "./polygon";

const HOUSE = [
  [0, 0],
  [200, 0],
  [200, 100],
  [100, 160],
  [0, 100],
] as const;

describe("A line through corners, some of them smooth", () => {
  it.each(cases)("has the handles that the core gives it: smooth $smooth", ({ corners, smooth, handles }) => {
    handles.forEach((expected, index) => {
      const found = handlesAfter(corners, new Set(smooth), index);
      expect(found === undefined).toBe(expected === null);
      found?.forEach(([x, y], which) => {
        expect(x).toBeCloseTo(expected?.[which]?.[0] ?? NaN, 4);
        expect(y).toBeCloseTo(expected?.[which]?.[1] ?? NaN, 4);
      });
    });
  });

  it("is drawn straight where no corner is smooth, and closed", () => {
    const path = curvePath(
      HOUSE,
      new Set(),
      (mm) => mm,
      (mm) => -mm,
    );
    expect(path).toBe("M0.00 0.00L200.00 0.00L200.00 -100.00L100.00 -160.00L0.00 -100.00L0.00 0.00Z");
    const curved = curvePath(HOUSE, new Set([3]), Number, Number);
    expect(curved.match(/C/g)).toHaveLength(2);
    expect(curved.match(/L/g)).toHaveLength(3);
    expect(curvePath([], new Set(), Number, Number)).toBe("");
  });

  it("has its middle on the line: half of an edge, or on the arc of a circle", () => {
    expect(middleOf(HOUSE, new Set(), 1)).toEqual([200, 50]);
    expect(middleOf(HOUSE, new Set(), 4)).toEqual([0, 50]);
    const around = [0, 60, 150, 200, 290].map((degrees) => {
      const turn = (degrees * Math.PI) / 180;
      return [90 * Math.cos(turn), 90 * Math.sin(turn)];
    });
    around.forEach((_, index) => {
      expect(Math.hypot(...middleOf(around, new Set([0, 1, 2, 3, 4]), index))).toBeCloseTo(90, 0);
    });
  });

  it("reaches as far as its curves do", () => {
    expect(traced(HOUSE, new Set())).toEqual(HOUSE);
    const diamond = [
      [50, 0],
      [100, 50],
      [50, 100],
      [0, 50],
    ];
    // All smooth it is a circle of 100; turned by an eighth, it reaches beyond its corners.
    const square = diamond.map(([x = 0, y = 0]) => [(x - y) / Math.SQRT2, (x + y) / Math.SQRT2]);
    const { left, right } = boundsOf(traced(square, new Set([0, 1, 2, 3])));
    expect(right - left).toBeCloseTo(100, 0);
    expect(boundsOf(square).right - boundsOf(square).left).toBeCloseTo(100 / Math.SQRT2, 5);
  });

  it("keeps its corners smooth when another comes between or one is gone", () => {
    expect(smoothWithAfter([2, 3], 0, 5)).toEqual([3, 4]);
    expect(smoothWithAfter([2, 3], 2, 5)).toEqual([2, 3, 4]);
    expect(smoothWithAfter([0, 4], 4, 5)).toEqual([0, 4, 5]);
    expect(smoothWithAfter([1], 1, 5)).toEqual([1]);
    expect(smoothWithout([1, 3], 1)).toEqual([2]);
    expect(smoothWithout([1, 3], 2)).toEqual([1, 2]);
    expect(smoothWithout([1, 3], 4)).toEqual([1, 3]);
  });
});
