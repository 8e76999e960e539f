import { describe, expect, it } from "vitest";
import { seeded, TILE, tile } from "./crumb";

const OPEN = { count: 60, least: 1, most: 3, large: 0.1, flecks: 5 };
const places = (path: string): number[][] =>
  [...path.matchAll(/M(-?[\d.]+) (-?[\d.]+)a([\d.]+) ([\d.]+)/g)].map((found) => found.slice(1).map(Number));

describe("the pores of cut cake", () => {
  it("lie as they lay before for the same seed, and elsewhere for another", () => {
    expect(tile(OPEN, 3)).toEqual(tile(OPEN, 3));
    expect(tile(OPEN, 4).hollow).not.toBe(tile(OPEN, 3).hollow);
  });

  it("join from tile to tile: what hangs over one edge stands at the other", () => {
    let seen = 0;
    for (const seed of Array.from({ length: 20 }, (_, at) => at)) {
      const pores = places(tile(OPEN, seed).hollow).map(([left = 0, y = 0, across = 0]) => [
        left + across,
        y,
        across,
      ]);
      for (const [x = 0, y = 0, across = 0] of pores)
        if (x < TILE[0] && x + across > TILE[0] + 0.05) {
          seen += 1;
          expect(
            pores.some(([left = 0, down = 0]) => Math.abs(left + TILE[0] - x) < 0.04 && down === y),
          ).toBe(true);
        }
    }
    expect(seen).toBeGreaterThan(0);
  });

  it("never touch, and are as many as asked for", () => {
    const pores = places(tile(OPEN, 2).hollow).map(([left = 0, y = 0, across = 0]) => [
      left + across,
      y,
      across,
    ]);
    const within = pores.filter(([x = 0, y = 0]) => x >= 0 && x < TILE[0] && y >= 0 && y < TILE[1]);
    expect(within).toHaveLength(OPEN.count);
    within.forEach(([x = 0, y = 0, across = 0], index) => {
      for (const [right = 0, up = 0, other = 0] of within.slice(index + 1))
        expect(Math.hypot(right - x, (up - y) * 1.3)).toBeGreaterThan(across + other);
    });
  });

  it("are drawn of numbers that fill the room from 0 to 1 evenly", () => {
    const random = seeded(9);
    const found = Array.from({ length: 4000 }, random);
    expect(Math.min(...found)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...found)).toBeLessThan(1);
    for (const from of [0, 0.25, 0.5, 0.75])
      expect(found.filter((one) => one >= from && one < from + 0.25).length / 4000).toBeCloseTo(0.25, 1);
  });
});
