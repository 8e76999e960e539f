/** What a cake is called until somebody names it: its tins from the bottom up, and its shape. */
import type { Document } from "@/api/types";
import { type LengthUnit, lengthMeasure } from "@/base/units";

/** “10/8/6 round”, “8 square”, “10/8 in two shapes”. */
export function titled(design: Document["design"], unit: LengthUnit): string {
  const tins = design.tiers.map((tier) => lengthMeasure(tier.tin_diameter_mm, unit).number.replace(" ", "-"));
  const shapes = [...new Set(design.tiers.map((tier) => tier.shape?.kind ?? "round"))];
  const [shape = "round"] = shapes;
  const words = shapes.length > 1 ? "of several shapes" : shape === "free" ? "to an outline" : shape;
  // So many that nobody would read them are counted instead.
  const sizes = tins.length > 6 ? `${tins.length} tiers from ${tins[0]}` : tins.join("/");
  return `${sizes}${unit === "in" ? "" : ` ${unit}`} ${words}`;
}
