import { describe, expect, it } from "vitest";
import { boundsOf, mirrored, rounded } from "./polygon";

const HOUSE: [number, number][] = [
  [0, 0],
  [200, 0],
  [200, 100],
  [60, 160],
  [0, 100],
];

describe("closed lines", () => {
  it("know how far they reach", () => {
    expect(boundsOf(HOUSE)).toEqual({ left: 0, right: 200, low: 0, high: 160 });
  });

  it("are rounded off everywhere but at the foot they stand on", () => {
    const found = rounded(HOUSE);
    expect(found).toHaveLength(8);
    expect(found.slice(0, 2)).toEqual([
      [0, 0],
      [200, 0],
    ]);
    expect(found).toContainEqual([200, 75]);
    expect(found).toContainEqual([165, 115]);
    expect(boundsOf(found).low).toBe(0);
    expect(boundsOf(found).high).toBeLessThan(160);
  });

  it("change left and right about and stay where they are", () => {
    expect(boundsOf(mirrored(HOUSE))).toEqual(boundsOf(HOUSE));
    expect(mirrored(HOUSE)).toContainEqual([140, 160]);
    expect(mirrored(mirrored(HOUSE))).toEqual(HOUSE);
  });
});
