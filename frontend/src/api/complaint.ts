/** What is wrong with a pantry, a recipe or a kit, said as people would: whose it is, which part of it, and what to do. */
import type { Complaint } from "./client";
import type { Pantry } from "./types";

const PARTS: Record<string, string> = {
  name: "the name",
  size: "the pack",
  item: "the item",
  unit: "the unit",
  price: "the price",
  amount: "the amount",
  lines: "its ingredients",
  steps: "the steps",
  makes: "what it makes",
  yield_g: "what it weighs in the end",
  took_min: "it",
  batter_g_per_ml: "what 1 ml of batter weighs",
  density_g_per_ml: "what 1 ml weighs",
  each_g: "what one piece weighs",
  firms: "how it sets",
  packs: "the price list",
  larder: "the larder",
  recipes: "the recipes",
  media: "the media",
  ingredients: "the ingredients",
  tins: "the tins",
  discs_mm: "the discs",
  boards_mm: "the boards",
  scrapers_mm: "the scrapers",
  sheets: "the printed sheets",
  begins_min: "the hour work begins",
  ends_min: "the hour work ends",
  week: "the week",
  off: "the day off",
  hands: "the hands",
};
type Listed = "media" | "ingredients" | "recipes" | "packs" | "larder";

/** A complaint as a sentence; `pantry` is what was sent, and `nameOf` what people call an item of it. */
export function complaintWords(
  complaint: Complaint,
  pantry?: Pantry,
  nameOf: (item: string) => string = String,
): string {
  const path = complaint.pointer.split("/").slice(1);
  if (path[0] === "pantry" || path[0] === "recipe" || path[0] === "kit" || path[0] === "places") path.shift();
  const [list, index] = path;
  const one = pantry?.[list as Listed]?.[Number(index)];
  const whose = one && ("name" in one ? one.name : nameOf(one.item));
  const line = path.indexOf("lines");
  const which = line >= 0 && path[line + 1] ? `line ${Number(path[line + 1]) + 1}` : undefined;
  const field = path.findLast((part) => !/^\d+$/.test(part)) ?? "";
  return asSentence([whose, which], PARTS[field] ?? field.replaceAll("_", " "), complaint.message);
}

/** A complaint as a sentence: whose it is, which part of that, if it is not all of it, and what is to be said. */
export function asSentence(whose: readonly (string | undefined)[], part: string, message: string): string {
  const head = whose.filter(Boolean).join(", ");
  const words = [head && part ? `${head}:` : head, part, message].filter(Boolean).join(" ");
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
}
