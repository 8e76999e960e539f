/** Every number of a tier that can be changed, once: the panel and the drawing edit the same fields. */
import type { Practice, Tier } from "@/api/types";

export interface TierFieldSpec {
  label: string;
  limit: string;
  path: string;
  usual?: (practice: Practice, tier: Tier) => number;
  /** What stands in the field while it is empty, for one that may stay so. */
  optional?: string;
  percent?: boolean;
}

type Holder = Record<string, unknown>;

/** The object that holds the last step of a path below a tier, or nothing where the tier has no such part. */
function holder(tier: Tier, path: string): [Holder, string] | null {
  const steps = path.split("/");
  const last = steps.pop() ?? "";
  let node: unknown = tier;
  for (const step of steps) node = (node as Holder | null)?.[step];
  return node && typeof node === "object" ? [node as Holder, last] : null;
}

/** The number at a field, nothing where it is left to the usual or the tier has no such part. */
export function valueAt(tier: Tier, path: string): number | null {
  const found = holder(tier, path);
  const value = found?.[0][found[1]];
  return typeof value === "number" ? value : null;
}

/** Set a field, where the tier has the part it belongs to. */
export function setAt(tier: Tier, path: string, value: number | null): void {
  const found = holder(tier, path);
  if (found) found[0][found[1]] = value;
}

function field(
  label: string,
  limit: string,
  path: string,
  more: Omit<TierFieldSpec, "label" | "limit" | "path"> = {},
): TierFieldSpec {
  return { label, limit, path, ...more };
}

export const TIER_FIELDS = {
  tin: field("Tin, across", "tin_diameter_mm", "tin_diameter_mm"),
  length: field("Tin, long", "length_mm", "shape/length_mm"),
  corner: field("Corners, radius", "corner_mm", "shape/corner_mm"),
  narrow: field("Narrow end, across", "narrow_mm", "build/narrow_mm"),
  bevelIn: field("Bevel, in from the side", "bevel_mm", "build/in_mm"),
  bevelDown: field("Bevel, down from the top", "bevel_mm", "build/down_mm"),
  rise: field("Dome rises", "rise_mm", "build/rise_mm"),
  ballFoot: field("Flat foot, across", "ball_foot_mm", "build/foot_mm"),
  footCut: field("Cut off the rim", "foot_cut_mm", "build/cut_mm", { usual: (p) => p.foot_cut_mm }),
  layerCount: field("Layers", "layer_count", "layers/count"),
  layerHeight: field("Each cut at", "layer_height_mm", "layers/height_mm", {
    optional: "the common cut",
  }),
  target: field("Finished height wanted", "target_height_mm", "layers/target_height_mm", {
    optional: "any",
  }),
  torte: field("Each torted into", "torte", "layers/bake/torte"),
  tinDepth: field("Tins, deep", "tin_depth_mm", "layers/bake/depth_mm"),
  boardAfter: field("Hidden board above layer", "board_after", "layers/board_after", { optional: "none" }),
  cavity: field("Hidden room, across", "cavity_mm", "layers/cavity/diameter_mm"),
  cavityFirst: field("Begins in layer", "layer_count", "layers/cavity/first", { optional: "the second" }),
  cavityLast: field("Ends in layer", "layer_count", "layers/cavity/last", { optional: "the last but one" }),
  soak: field("Soaks in, each layer", "syrup_soak_mm", "layers/syrup/soak_mm", {
    usual: (p) => p.syrup_soak_mm,
  }),
  filling: field("Filling, thick", "filling_thickness_mm", "filling/thickness_mm", {
    usual: (p) => p.filling_mm,
  }),
  dam: field("Dam, wide", "dam_width_mm", "filling/dam_width_mm"),
  seal: field("Seal, thick", "seal_thickness_mm", "filling/seal_mm", { usual: (p) => p.seal_mm }),
  crumb: field("Crumb coat, thick", "coat_thickness_mm", "crumb/thickness_mm", {
    usual: (p, tier) => (tier.final.kind === "semi_naked" ? p.semi_naked_mm : p.crumb_coat_mm),
  }),
  side: field("Side, thick", "coat_thickness_mm", "final/side_mm", { usual: (p) => p.coat_side_mm }),
  top: field("Top, thick", "coat_thickness_mm", "final/top_mm", { usual: (p) => p.coat_top_mm }),
  disc: field("Disc or card, across", "disc_diameter_mm", "final/disc_diameter_mm"),
  rim: field("Lip above the top", "rim_mm", "final/rim_mm", { usual: (p) => p.rim_mm }),
  relief: field("Relief, on average", "coat_thickness_mm", "final/relief_mm", {
    usual: (p) => p.relief_mm,
  }),
  stays: field("Of the crumb coat stays", "share", "final/stays", {
    usual: (p) => p.semi_naked_share,
    percent: true,
  }),
  sheet: field("Rolled, thick", "fondant_thickness_mm", "cover/thickness_mm", {
    usual: (p) => p.fondant_mm,
  }),
  collarThick: field("Chocolate, thick", "fondant_thickness_mm", "cover/thickness_mm", {
    usual: (p) => p.collar_mm,
  }),
  overlap: field("Beyond the hem, all round", "overlap_mm", "cover/overlap_mm", {
    usual: (p) => p.overlap_mm,
  }),
  panelOverlap: field("Ends overlap", "overlap_mm", "cover/overlap_mm", { usual: (p) => p.panel_overlap_mm }),
  trim: field("To trim, in height", "overlap_mm", "cover/trim_mm", { usual: (p) => p.panel_trim_mm }),
  strip: field("Strip already cut, long", "strip_mm", "cover/strip_mm", { optional: "none" }),
  band: field("Band over the seam, wide", "band_mm", "cover/band_mm", { usual: (p) => p.band_mm }),
  gores: field("Gores", "gores", "cover/count"),
  sheetWide: field("Sheet, wide", "sheet_side_mm", "cover/sheet_width_mm"),
  sheetHigh: field("Sheet, high", "sheet_side_mm", "cover/sheet_height_mm"),
  printedOverlap: field("Sheets overlap", "overlap_mm", "cover/overlap_mm", {
    usual: (p) => p.printed_overlap_mm,
  }),
  rolled: field("Sheet already rolled, across", "strip_mm", "cover/rolled_mm", { optional: "none" }),
  spread: field("Of the paper is covered", "spread", "cover/spread", { percent: true }),
  above: field("Stands above the tier", "overlap_mm", "cover/above_mm", { usual: (p) => p.collar_above_mm }),
} satisfies Record<string, TierFieldSpec>;

export type TierFieldName = keyof typeof TIER_FIELDS;

type Coloured = { colour?: string | null };

/** Every place where a tier asks for a colour, to read and to change. */
export function colourFields(
  tier: Tier,
): { get: () => string | null | undefined; set: (name: string) => void }[] {
  const { filling, crumb, final, cover, on_top, borders, layers } = tier;
  const stripes = cover.kind === "panel" ? cover.stripes : [];
  const steps = [
    filling,
    crumb,
    final,
    cover,
    ...(on_top ?? []),
    layers.syrup,
    ...(borders ?? []),
    ...(stripes ?? []),
  ];
  const fields = steps
    .filter((step) => step && ("colour" in step || "medium" in step))
    .map((step) => ({
      get: () => (step as Coloured).colour,
      set: (name: string) => {
        (step as Coloured).colour = name;
      },
    }));
  if (filling.kind === "soft") {
    fields.push({ get: () => filling.dam_colour, set: (name) => void (filling.dam_colour = name) });
  }
  return fields;
}
