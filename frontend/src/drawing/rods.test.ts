import { describe, expect, it } from "vitest";
import type { Plan } from "@/api/types";
import { rodsOf } from "./rods";

const value = (value: number) => ({ value });

function plan(kind: "stacked" | "pillars", dowelLength: number | null): Pick<Plan, "stack" | "section"> {
  const joint = {
    tier: 2,
    kind,
    across: value(6),
    level: value(112),
    gap: value(kind === "pillars" ? 70 : 0),
    length: value(kind === "pillars" ? 170 : 100),
    supports: { support_1: { x: 40, y: 0 }, support_2: { x: -40, y: 0 }, support_3: { x: 2, y: 30 } },
  };
  return {
    stack: {
      joints: { tier_b: joint },
      dowel: dowelLength && {
        across: value(8),
        into: value(10),
        length: value(dowelLength),
        most: value(200),
      },
      base_thickness: value(12),
    },
    section: { tiers: [{}, { off: [15, 0] }] },
  } as unknown as Pick<Plan, "stack" | "section">;
}

describe("what holds a cake from inside", () => {
  it("shows the supports of the cut half, from what they stand on to the top of the tier", () => {
    const [far, middle, ...others] = rodsOf(plan("stacked", null));
    expect(others).toEqual([]);
    expect(far).toEqual({
      place: "stack.joints.tier_b.supports.support_1",
      kind: "support",
      outline: [
        [37, 12],
        [43, 12],
        [43, 112],
        [37, 112],
      ],
      off: [15, 0],
    });
    // One that the cut goes through is drawn from the axis.
    expect(middle?.outline[0]).toEqual([0, 12]);
  });

  it("lets pillars reach up to the next tier", () => {
    const [far] = rodsOf(plan("pillars", null));
    expect(far?.outline.map(([, up]) => up)).toEqual([12, 12, 182, 182]);
  });

  it("draws a dowel from inside the base board, and one that is too long a little out of the top", () => {
    const heights = (length: number) =>
      rodsOf(plan("stacked", length))
        .at(-1)
        ?.outline.map(([, up]) => up);
    expect(heights(150)).toEqual([2, 2, 152, 152]);
    expect(heights(900)).toEqual([2, 2, 242, 242]);
  });
});
