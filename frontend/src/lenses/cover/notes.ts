/** What this lens writes beside the drawing: how thick the sheet is. */
import { type Annotation, type Notes, outside, partsOf, wall } from "@/drawing/annotations";

export const notes: Notes = (plan, _, tier) => {
  const planned = plan.tiers[tier];
  const [sheet] = partsOf(plan, tier, "cover");
  const over = outside(plan, tier);
  if (!planned) return [];
  if (!planned.cover || !sheet) {
    return [{ label: "high", figure: planned.stack.height, mark: "height", box: over }];
  }
  const [coat] = [...partsOf(plan, tier, "final"), ...partsOf(plan, tier, "crumb")];
  const inner = coat ?? sheet;
  const rolled: Annotation[] = planned.cover.over
    ? [
        {
          label: "rolled",
          figure: planned.cover.over.side,
          mark: "point",
          box: wall(sheet, 0.75),
          field: "cover/thickness_mm",
          tier,
        },
      ]
    : [];
  return [
    ...rolled,
    {
      label: "over coat",
      figure: planned.cover.height_over_coat,
      mark: "height",
      box: { ...inner, x1: over.x1 },
    },
  ];
};
