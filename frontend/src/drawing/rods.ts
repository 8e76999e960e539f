/** What holds a cake from inside, as it is seen where the cake is cut: its supports and its centre dowel. */
import type { Plan } from "@/api/types";

export interface Rod {
  /** Its path in the plan. */
  place: string;
  kind: "support" | "dowel";
  outline: [number, number][];
  /** How far its tier stands off the axis, mm to the right and to the back. */
  off?: number[];
}

/** A dowel that is too long is drawn standing out of the top by so much at most, mm. */
const OUT = 40;

function box(left: number, right: number, low: number, high: number): [number, number][] {
  return [
    [left, low],
    [right, low],
    [right, high],
    [left, high],
  ];
}

/** The supports and the dowel in the cut half: outlines in mm from the axis of their tier and from the table. */
export function rodsOf(plan: Pick<Plan, "stack" | "section">): Rod[] {
  const { joints, dowel, base_thickness } = plan.stack;
  const rods = Object.entries(joints).flatMap(([key, joint]) => {
    const half = joint.across.value / 2;
    const top = joint.level.value + (joint.kind === "pillars" ? joint.gap.value : 0);
    const off = plan.section.tiers[joint.tier - 1]?.off;
    return Object.entries(joint.supports)
      .filter(([, { x }]) => x > -half)
      .map(([name, { x }]): Rod => ({
        place: `stack.joints.${key}.supports.${name}`,
        kind: "support",
        outline: box(Math.max(0, x - half), x + half, top - joint.length.value, top),
        off,
      }));
  });
  if (dowel) {
    const low = base_thickness.value - dowel.into.value;
    const high = low + Math.min(dowel.length.value, dowel.most.value + OUT);
    rods.push({
      place: "stack.dowel",
      kind: "dowel",
      outline: box(0, dowel.across.value / 2, low, high),
    });
  }
  return rods;
}
