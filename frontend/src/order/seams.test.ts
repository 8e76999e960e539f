import { describe, expect, it } from "vitest";
import { type Seam, sidesOf, waysOf, withoutSeam } from "./seams";

const seam = (more: Partial<Seam> = {}): Seam => ({
  run: "upright",
  at: 0.5,
  turn_deg: 0,
  within: null,
  ...more,
});
const within = (number: number): Partial<Seam> => ({ within: { seam: number, side: "beyond" } });

describe("the sides of a seam", () => {
  it("are called by where they lie", () => {
    expect(sidesOf(seam({ run: "level" }))).toEqual({ beyond: "above", before: "below" });
    expect([0, 40, 90, -90, 180].map((turn_deg) => sidesOf(seam({ turn_deg })).beyond)).toEqual([
      "behind",
      "behind",
      "left of",
      "right of",
      "in front of",
    ]);
  });

  it("are offered of seams before it alone", () => {
    const seams = [seam(), seam({ run: "level" }), seam()];
    expect(waysOf(seams, 0).map((way) => way.words)).toEqual(["all the way"]);
    expect(waysOf(seams, 2).map((way) => way.words)).toEqual([
      "all the way",
      "behind seam 1",
      "in front of seam 1",
      "above seam 2",
      "below seam 2",
    ]);
  });
});

describe("taking a seam out", () => {
  it("leaves what ran within it where that one ran, and counts the others anew", () => {
    const left = withoutSeam([seam(), seam(within(1)), seam(within(2)), seam(within(3))], 1);
    expect(left.map((one) => one.within?.seam ?? null)).toEqual([null, 1, 2]);
    expect(withoutSeam([seam(), seam(within(1))], 0).map((one) => one.within)).toEqual([null]);
  });
});
