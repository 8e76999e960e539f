import { describe, expect, it } from "vitest";
import type { Solid } from "@/api/types";
import { placedLike, sized } from "./solids";

describe("a solid that becomes an opening", () => {
  it("lies as far from the others as it did, and is cut out by being there", () => {
    const barrel = { kind: "cone", x_mm: 30 } as Solid;
    const hole = { kind: "ball", does: "cut", x_mm: 40, y_mm: -5, z_mm: 60, across_mm: 50 } as Solid;
    expect(placedLike(hole, barrel, [14.5, 0, 2])).toEqual({
      ...hole,
      does: "join",
      x_mm: 24.5,
      y_mm: -5,
      z_mm: 62,
    });
  });
});

describe("a solid of another size", () => {
  const box = { kind: "box", wide_mm: 100, deep_mm: 60, x_mm: -20, lean_deg: 30, does: "cut" } as Solid;

  it("grows in all its lengths and in how far away it lies, and is leant as it was", () => {
    expect(sized(box, 1.5)).toEqual({ ...box, wide_mm: 150, deep_mm: 90, x_mm: -30 });
  });

  it("keeps to tenths of a millimetre, so that it comes back as it was", () => {
    expect(sized(sized(box, 1 / 3), 3)).toMatchObject({ wide_mm: 99.9, x_mm: -20.1 });
  });

  it("grows in the corners of its outline", () => {
    const raised = { kind: "raised", points_mm: [[0, 0], [50, 0], [0, 30]], high_mm: 20 } as unknown as Solid; // prettier-ignore
    expect(sized(raised, 2)).toMatchObject({ points_mm: [[0, 0], [100, 0], [0, 60]], high_mm: 40 }); // prettier-ignore
  });
});
