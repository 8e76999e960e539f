/** What this lens writes beside the drawing: what each tier weighs, and how long the supports in hand are cut. */
import { type Annotation, type Notes, outside } from "@/drawing/annotations";
import { jointAt } from "@/order/joints";

/** Of more tiers than this only the one in hand is written beside, so that no two labels meet. */
const FEW = 6;

export const notes: Notes = (plan, _tiers, tier) => {
  const found: Annotation[] = [];
  plan.tiers.forEach((planned, index) => {
    if (plan.tiers.length > FEW && index !== tier) return;
    const box = outside(plan, index);
    found.push({ label: "weighs", figure: planned.stack.weight, mark: "point", box, at: 0.72 });
  });
  const top = outside(plan, plan.tiers.length - 1);
  const { lean } = plan.stack;
  if (lean.value > 0) {
    const x = lean.value;
    found.push({
      label: "may lean",
      figure: lean,
      mark: "point",
      box: { x0: x, x1: x, z0: top.z1, z1: top.z1 },
    });
  }
  const joint = jointAt(plan, tier);
  const below = plan.section.tiers[tier - 1];
  if (joint && below) {
    const half = outside(plan, tier - 1).x1;
    const reached = joint.level.value + (joint.kind === "pillars" ? joint.gap.value : 0);
    found.push({
      label: "supports",
      figure: joint.length,
      mark: "height",
      box: { x0: half, x1: half, z0: reached - joint.length.value, z1: reached },
    });
  }
  return found;
};
