/** What is wrong with an order, said as people would: of which tier, of which part of it, and what would be accepted. */
import type { Complaint } from "@/api/client";
import { asSentence } from "@/api/complaint";
import type { Document } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { askAt, pickAt } from "./kinds";

/** What the parts of an order are called; of those there are several of, one of them. */
const PARTS: Record<string, string> = {
  "": "the order",
  title: "the title",
  due: "when it is due",
  servings: "the servings",
  tiers: "the tiers",
  tin_diameter_mm: "the tin",
  build: "the form",
  shape: "the shape",
  layers: "the layers",
  filling: "the filling",
  crumb: "the crumb coat",
  final: "the final coat",
  cover: "the cover",
  colours: "the colours",
  medium: "what it is made of",
  colour: "the colour",
  stand: "what it stands on",
  stacking: "how it is stacked",
  points_mm: "the drawing",
  points: "the drawing",
  front_mm: "the view from the front",
  mesh: "the body out of the file",
  seam: "where it ends",
};
const ONE_OF: Record<string, string> = {
  solids: "solid",
  openings: "opening",
  own_seams: "seam",
  patch_colours: "patch",
  regions: "piped region",
  borders: "border",
  on_top: "piece on the top",
  sections: "section",
  stripes: "stripe",
};

/** A complaint about an order as a sentence. */
export function wrongWords({ pointer, message }: Complaint, document: Document): string {
  const path = pointer.split("/").slice(1);
  const heads: string[] = [];
  if (path[0] === "design") path.shift();
  const number = path[0] === "tiers" && path[1] ? Number(path[1]) : -1;
  const tier = document.design.tiers[number];
  const own = tier ? path.slice(2).join("/") : "";
  if (tier) path.splice(0, 2);
  if (tier && document.design.tiers.length > 1) heads.push(`tier ${number + 1}`);
  path.forEach((step, index) => {
    const one = ONE_OF[step];
    if (one && path[index + 1]) heads.push(`${one} ${Number(path[index + 1]) + 1}`);
  });
  const asked = tier && (askAt(tier, own)?.words ?? pickAt(tier, own)?.words);
  const field = path.findLast((step) => !/^\d+$/.test(step)) ?? "";
  const habit = path[0] === "practice" && useHandbook().book?.habits.find((one) => one.name === field);
  // Of one among several nothing more is named where all of it is wrong.
  const what =
    field in ONE_OF
      ? ""
      : ((asked ?? (habit ? habit.words : undefined))?.toLowerCase() ??
        PARTS[field] ??
        field.replaceAll("_", " "));
  return asSentence(heads, what, message);
}
