/** What this lens writes beside the drawing: what the layers come to, and where they are filled. */
import { type Annotation, type Notes, outside, partsOf, standing } from "@/drawing/annotations";

export const notes: Notes = (plan, tiers, tier) => {
  const planned = plan.tiers[tier];
  const sponges = partsOf(plan, tier, "sponge");
  const [lowest] = sponges;
  const highest = sponges.at(-1);
  if (planned?.foot) return standing(plan, tier);
  if (!planned || !lowest || !highest) return [];
  const found: Annotation[] = [
    {
      label: "filled",
      figure: planned.layers.height,
      mark: "height",
      box: { ...lowest, x1: outside(plan, tier).x1, z1: highest.z1 },
      step: 1,
    },
    {
      label: "cut at",
      figure: planned.layers.cut_height,
      mark: "height",
      box: { ...lowest, x1: outside(plan, tier).x1 },
      field: "layers/height_mm",
      tier,
    },
  ];
  const [gap] = partsOf(plan, tier, "filling");
  if (gap) {
    const figure = planned.layers.filling.thickness;
    found.push({
      label: "filling",
      figure,
      mark: "point",
      box: gap,
      at: 0.8,
      field: "filling/thickness_mm",
      tier,
    });
  }
  const dam = partsOf(plan, tier, "dam").at(-1);
  if (dam && planned.layers.filling.dam_width && tiers[tier]?.filling.kind === "soft") {
    found.push({
      label: "dam",
      figure: planned.layers.filling.dam_width,
      mark: "point",
      box: dam,
      field: "filling/dam_width_mm",
      tier,
    });
  }
  return found;
};
