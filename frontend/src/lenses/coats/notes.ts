/** What this lens writes beside the drawing: how thick each coat is. */
import { type Annotation, type Notes, outside, partsOf, standing, wall } from "@/drawing/annotations";
import { askAt } from "@/order/kinds";

export const notes: Notes = (plan, tiers, tier) => {
  const planned = plan.tiers[tier];
  if (!planned) return [];
  const found: Annotation[] = [];
  const [crumb] = partsOf(plan, tier, "crumb");
  const [final] = partsOf(plan, tier, "final");
  const [sponge] = partsOf(plan, tier, "sponge");
  if (crumb && sponge) {
    const figure = planned.coats.crumb.side;
    found.push({
      label: "crumb",
      figure,
      mark: "point",
      box: wall(crumb, 0.3),
      field: "crumb/thickness_mm",
      tier,
    });
  }
  if (final && planned.coats.final) {
    const own = (field: string): string | undefined =>
      tiers[tier] && askAt(tiers[tier], field) ? field : undefined;
    found.push({
      label: "side",
      figure: planned.coats.final.side,
      mark: "point",
      box: wall(final, 0.6),
      field: own("final/side_mm"),
      tier,
    });
    if (planned.foot) return [...found, ...standing(plan, tier)];
    const top = { x0: final.x1 * 0.55, x1: final.x1 * 0.55, z0: crumb?.z1 ?? final.z1, z1: final.z1 };
    found.push({
      label: "top",
      figure: planned.coats.final.top,
      mark: "point",
      box: top,
      field: own("final/top_mm"),
      tier,
    });
  }
  const over = planned.coats.final ?? planned.coats.crumb;
  const ring = final ?? crumb;
  if (ring)
    found.push({
      label: "coated",
      figure: over.height,
      mark: "height",
      box: { ...ring, x1: outside(plan, tier).x1 },
    });
  return found;
};
