import { describe, expect, it } from "vitest";
import { bandsUp, isDark, unlike, wallLines } from "./tone";

describe("a colour to begin with", () => {
  it("is unlike every colour there is, for as many as are on offer", () => {
    const shown: string[] = [];
    for (let number = 0; number < 6; number += 1) {
      const next = unlike(shown);
      expect(shown).not.toContain(next);
      shown.push(next);
    }
  });

  it("is not the one that is there already, nor one a hair from it", () => {
    expect(unlike(["#E9C9B8"])).not.toBe("#E9C9B8");
    expect(unlike(["#A9BE94", "#E9C9B8"])).not.toBe("#A9BE93");
  });
});

describe("stripes that lie round a tier", () => {
  const leaning: [number, number][] = [
    [0, 10],
    [100, 10],
    [80, 110],
    [0, 110],
  ];

  it("share its height from the foot up, each as wide as the wall is there", () => {
    const [low, high] = bandsUp(
      [
        ["#111111", 0.25],
        ["#222222", 0.75],
      ],
      leaning,
    );
    expect(low?.edge.at(0)).toEqual([0, 10]);
    expect(low?.edge.at(-1)).toEqual([0, 35]);
    expect(low?.edge.at(-2)).toEqual([95, 35]);
    expect(high?.edge.at(-1)).toEqual([0, 110]);
  });
});

describe("tone", () => {
  it("tells dark from light, and flat walls from round ones", () => {
    expect([isDark("#5A3524"), isDark("#F6ECCB")]).toEqual([true, false]);
    const lines = wallLines({ curved: true, edges: [] }, 100);
    expect(lines.every((x) => x > 50 && x < 100)).toBe(true);
    expect(wallLines({ curved: false, edges: [0, 40] }, 100)).toEqual([0, 40]);
  });
});
