import { describe, expect, it } from "vitest";
import { corners, rimOf, shine, tapered } from "./plate";

const numbers = (path: string): number[] => [...path.matchAll(/-?\d+(?:\.\d+)?/g)].map(Number);

describe("the lines of the plate", () => {
  it("taper from a point to their full width", () => {
    const [x0, , x1, , x2, , x3] = numbers(
      tapered(
        [
          [10, 0],
          [10, 100],
        ],
        2,
      ),
    );
    expect([x0, x1, x2, x3]).toEqual([10, 9, 11, 10]);
  });

  it("find the rim of a tier that is flat above, and none on a ball", () => {
    const drum = [
      [0, 0],
      [100, 0],
      [100, 80],
      [0, 80],
    ];
    const rim = rimOf(drum, 5);
    expect(Math.min(...rim.map(([, z]) => z))).toBeCloseTo(75, 9);
    expect(Math.max(...rim.map(([x]) => x))).toBeCloseTo(100, 9);
    const ball = Array.from({ length: 19 }, (_, at) => {
      const turn = ((at - 9) / 9) * (Math.PI / 2);
      return [50 * Math.cos(turn), 50 + 50 * Math.sin(turn)];
    });
    expect(rimOf(ball, 5)).toEqual([]);
  });

  it("shine within their strip, and not where it is too thin to see", () => {
    const [x0 = 0, y = 0, x1 = 0] = numbers(shine(100, 200, 40, 50));
    expect(x0).toBeGreaterThan(100);
    expect(x1).toBeLessThan(200);
    expect(y).toBeCloseTo(43, 9);
    expect(shine(100, 200, 40, 43)).toBe("");
  });

  it("mark corners outside what is chosen, never over it", () => {
    const found = numbers(corners(100, 50, 140, 90));
    expect(Math.min(...found)).toBeLessThan(50);
    for (const leg of corners(100, 50, 140, 90).split("M").slice(1)) {
      const [x = 0, y = 0] = numbers(leg);
      expect(x < 100 || x > 140 || y < 50 || y > 90).toBe(true);
    }
  });
});
