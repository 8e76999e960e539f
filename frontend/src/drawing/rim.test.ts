import { describe, expect, it } from "vitest";
import { bandsAt, heldAt } from "./rim";

const ring = (x0: number, x1: number, z0: number, z1: number): [number, number][] => [
  [0, z0],
  [x1, z0],
  [x1, z1],
  [0, z1],
  [0, z1 - 1],
  [x0, z1 - 1],
  [x0, z0],
];

const box = (wide: number, high: number): [number, number][] => [
  [0, 0],
  [wide, 0],
  [wide, high],
  [0, high],
];

describe("the glass at the rim", () => {
  it("is held just below a flat rim, and at the wall of what has none", () => {
    const cake = { kind: "sponge" as const, outline: box(90, 70) };
    const drum = heldAt({ outline: box(100, 80) }, [cake]);
    expect(drum.x).toBeCloseTo(100, 9);
    expect(drum.z).toBeLessThan(70);
    expect(drum.z).toBeGreaterThan(60);
    const cone = heldAt(
      {
        outline: [
          [0, 0],
          [100, 0],
          [0, 80],
        ],
      },
      [cake],
    );
    expect(cone.x).toBeCloseTo(50, 9);
    expect(cone.z).toBeCloseTo(40, 9);
  });

  it("names what a level line meets, from the cake outward, each in its own band", () => {
    const parts = [
      { kind: "cover" as const, outline: ring(108, 111, 0, 90) },
      { kind: "crumb" as const, outline: ring(100, 102, 0, 82) },
      { kind: "final" as const, outline: ring(102, 108, 0, 88) },
      {
        kind: "sponge" as const,
        outline: [
          [0, 0],
          [100, 0],
          [100, 80],
          [0, 80],
        ] as [number, number][],
      },
    ];
    const bands = bandsAt(parts, 60);
    expect(bands.map(({ words, x }) => [words, Math.round(x)])).toEqual([
      ["crumb", 101],
      ["coat", 105],
      ["cover", 110],
    ]);
  });
});
