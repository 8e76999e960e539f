/** Every number of a tier that can be changed, once: the panel and the drawing edit the same fields. */
import type { Practice, Tier } from "@/api/types";

export interface TierFieldSpec {
  label: string;
  limit: string;
  path: string;
  get: (tier: Tier) => number | null | undefined;
  set: (tier: Tier, value: number | null) => void;
  usual?: (practice: Practice) => number;
  /** What stands in the field while it is empty, for one that may stay so. */
  optional?: string;
}

const need = (value: number | null): number => {
  if (value === null) throw new Error("this field cannot be emptied");
  return value;
};

export const TIER_FIELDS = {
  tin: {
    label: "Tin, across",
    limit: "tin_diameter_mm",
    path: "tin_diameter_mm",
    get: (tier) => tier.tin_diameter_mm,
    set: (tier, value) => (tier.tin_diameter_mm = need(value)),
  },
  length: {
    label: "Tin, long",
    limit: "length_mm",
    path: "shape/length_mm",
    get: (tier) => ("length_mm" in tier.shape ? tier.shape.length_mm : null),
    set: (tier, value) => {
      if ("length_mm" in tier.shape) tier.shape.length_mm = need(value);
    },
  },
  corner: {
    label: "Corners, radius",
    limit: "corner_mm",
    path: "shape/corner_mm",
    get: (tier) => ("corner_mm" in tier.shape ? tier.shape.corner_mm : null),
    set: (tier, value) => {
      if ("corner_mm" in tier.shape) tier.shape.corner_mm = need(value);
    },
  },
  layerCount: {
    label: "Layers",
    limit: "layer_count",
    path: "layers/count",
    get: (tier) => tier.layers.count,
    set: (tier, value) => (tier.layers.count = need(value)),
  },
  layerHeight: {
    label: "Each cut at",
    limit: "layer_height_mm",
    path: "layers/height_mm",
    get: (tier) => tier.layers.height_mm,
    set: (tier, value) => (tier.layers.height_mm = need(value)),
  },
  target: {
    label: "Finished height wanted",
    limit: "target_height_mm",
    path: "layers/target_height_mm",
    get: (tier) => tier.layers.target_height_mm,
    set: (tier, value) => (tier.layers.target_height_mm = value),
    optional: "any",
  },
  filling: {
    label: "Filling, thick",
    limit: "filling_thickness_mm",
    path: "filling/thickness_mm",
    get: (tier) => tier.filling.thickness_mm,
    set: (tier, value) => (tier.filling.thickness_mm = value),
    usual: (practice) => practice.filling_mm,
  },
  dam: {
    label: "Dam, wide",
    limit: "dam_width_mm",
    path: "filling/dam_width_mm",
    get: (tier) => (tier.filling.kind === "soft" ? tier.filling.dam_width_mm : null),
    set: (tier, value) => {
      if (tier.filling.kind === "soft") tier.filling.dam_width_mm = value;
    },
  },
  seal: {
    label: "Seal, thick",
    limit: "seal_thickness_mm",
    path: "filling/seal_mm",
    get: (tier) => (tier.filling.kind === "soft" ? tier.filling.seal_mm : null),
    set: (tier, value) => {
      if (tier.filling.kind === "soft") tier.filling.seal_mm = value;
    },
    usual: (practice) => practice.seal_mm,
  },
  crumb: {
    label: "Crumb coat, thick",
    limit: "coat_thickness_mm",
    path: "crumb/thickness_mm",
    get: (tier) => tier.crumb.thickness_mm,
    set: (tier, value) => (tier.crumb.thickness_mm = value),
    usual: (practice) => practice.crumb_coat_mm,
  },
  side: {
    label: "Side, thick",
    limit: "coat_thickness_mm",
    path: "final/side_mm",
    get: (tier) => (tier.final.kind === "freehand" ? tier.final.side_mm : null),
    set: (tier, value) => {
      if (tier.final.kind === "freehand") tier.final.side_mm = value;
    },
    usual: (practice) => practice.coat_side_mm,
  },
  top: {
    label: "Top, thick",
    limit: "coat_thickness_mm",
    path: "final/top_mm",
    get: (tier) => (tier.final.kind === "none" ? null : tier.final.top_mm),
    set: (tier, value) => {
      if (tier.final.kind !== "none") tier.final.top_mm = value;
    },
    usual: (practice) => practice.coat_top_mm,
  },
  disc: {
    label: "Disc, across",
    limit: "disc_diameter_mm",
    path: "final/disc_diameter_mm",
    get: (tier) => (tier.final.kind === "disc" ? tier.final.disc_diameter_mm : null),
    set: (tier, value) => {
      if (tier.final.kind === "disc") tier.final.disc_diameter_mm = need(value);
    },
  },
  sheet: {
    label: "Rolled, thick",
    limit: "fondant_thickness_mm",
    path: "cover/thickness_mm",
    get: (tier) => (tier.cover.kind === "drape" ? tier.cover.thickness_mm : null),
    set: (tier, value) => {
      if (tier.cover.kind === "drape") tier.cover.thickness_mm = value;
    },
    usual: (practice) => practice.fondant_mm,
  },
  overlap: {
    label: "Beyond the hem, all round",
    limit: "overlap_mm",
    path: "cover/overlap_mm",
    get: (tier) => (tier.cover.kind === "drape" ? tier.cover.overlap_mm : null),
    set: (tier, value) => {
      if (tier.cover.kind === "drape") tier.cover.overlap_mm = value;
    },
    usual: (practice) => practice.overlap_mm,
  },
} satisfies Record<string, TierFieldSpec>;

export type TierFieldName = keyof typeof TIER_FIELDS;

/** Every place where a tier asks for a colour, to read and to change. */
export function colourFields(
  tier: Tier,
): { get: () => string | null | undefined; set: (name: string) => void }[] {
  const { filling, crumb, final, cover } = tier;
  const steps = [
    filling,
    crumb,
    ...(final.kind === "none" ? [] : [final]),
    ...(cover.kind === "none" ? [] : [cover]),
  ];
  const fields = steps.map((step) => ({
    get: () => step.colour,
    set: (name: string) => {
      step.colour = name;
    },
  }));
  if (filling.kind === "soft") {
    fields.push({ get: () => filling.dam_colour, set: (name) => void (filling.dam_colour = name) });
  }
  return fields;
}
