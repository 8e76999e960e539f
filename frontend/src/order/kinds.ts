/** The ways a tier is built, coated and covered: what each is called, what it asks for, and how it begins. */
import type { Tier } from "@/api/types";
import type { TierFieldName } from "./fields";

export type Build = Tier["build"];
export type Final = Tier["final"];
export type Cover = Tier["cover"];

interface Kind<T extends { kind: string }> {
  value: T["kind"];
  words: string;
  fields: readonly TierFieldName[];
}

/** The builds, each with its silhouette from the side in a box of 24 by 24. */
export const BUILDS: readonly (Kind<Build> & { icon: string; round?: boolean })[] = [
  { value: "straight", words: "straight", icon: "M4 5h16v14h-16z", fields: [] },
  { value: "tapered", words: "tapered", icon: "M7 5h10l4 14h-18z", fields: ["narrow"] },
  {
    value: "bevelled",
    words: "bevelled rim",
    icon: "M8 5h8l4 5v9h-16v-9z",
    fields: ["bevelIn", "bevelDown"],
  },
  { value: "domed", words: "domed top", icon: "M4 19v-7c1-9 15-9 16 0v7z", round: true, fields: ["rise"] },
  { value: "ball", words: "ball", icon: "M9 20a8.5 8.5 0 1 1 6 0z", round: true, fields: ["ballFoot"] },
  {
    value: "turned",
    words: "turned",
    icon: "M4 19c5-5 1-8 4-14h8c3 6-1 9 4 14z",
    round: true,
    fields: [],
  },
  {
    value: "side",
    words: "on its side",
    icon: "M6 20a9.5 9.5 0 1 1 12 0z",
    round: true,
    fields: ["footCut"],
  },
];

/** A tier's new build, of sizes that stand on the tin it has. */
export function rebuilt(tier: Tier, kind: Build["kind"]): Build {
  const across = tier.tin_diameter_mm;
  const round = (mm: number): number => Math.round(mm * 10) / 10;
  switch (kind) {
    case "tapered":
      return { kind, narrow_mm: round(across * 0.8), narrow: "top" };
    case "bevelled":
      return { kind, in_mm: round(across * 0.1), down_mm: round(across * 0.1) };
    case "domed":
      return { kind, rise_mm: round(across * 0.2) };
    case "ball":
      return { kind, halves: 2, foot_mm: round(across * 0.4) };
    case "turned":
      return {
        kind,
        smooth: true,
        points: [
          { up: 0, out: 1 },
          { up: 0.5, out: 0.75 },
          { up: 1, out: 0.9 },
        ],
      };
    case "side":
      return { kind, cut_mm: null };
    default:
      return { kind: "straight" };
  }
}

/** The schools of the final coat. */
export const FINALS: readonly (Kind<Final> & { does: string })[] = [
  { value: "freehand", words: "Hot scraper", does: "drawn freehand", fields: ["side", "top"] },
  { value: "disc", words: "Disc", does: "scraped against a disc", fields: ["disc", "top"] },
  { value: "twin", words: "Twin disc", does: "filled out between two discs", fields: ["disc", "top"] },
  {
    value: "inverted",
    words: "Inverted",
    does: "filled out to a card, upside down",
    fields: ["disc", "top"],
  },
  {
    value: "towel",
    words: "Crust & towel",
    does: "crusted and smoothed with a towel",
    fields: ["side", "top"],
  },
  {
    value: "deckled",
    words: "Deckled rim",
    does: "left standing as a rough lip",
    fields: ["side", "top", "rim"],
  },
  { value: "semi_naked", words: "Semi-naked", does: "scraped back to the cake", fields: ["stays"] },
  { value: "textured", words: "Piped over", does: "piped or stroked all over", fields: ["relief"] },
  { value: "none", words: "None", does: "", fields: [] },
];

const PLATES = ["disc", "twin", "inverted"];

export function isPlate(final: Final): final is Extract<Final, { disc_diameter_mm: number }> {
  return PLATES.includes(final.kind);
}

/** A tier's new final coat, keeping the medium, colour and thicknesses it had; `disc` is the size a new disc takes. */
export function refinished(tier: Tier, kind: Final["kind"], disc: number): Final {
  const before = tier.final as { medium?: string; colour?: string | null; top_mm?: number | null };
  const medium = kind === "towel" ? "american_buttercream" : (before.medium ?? tier.crumb.medium);
  const colour = before.medium ? before.colour : tier.crumb.colour;
  const coat = { medium, colour };
  const top_mm = before.top_mm ?? null;
  switch (kind) {
    case "none":
    case "semi_naked":
      return { kind };
    case "textured":
      return { kind, ...coat };
    case "disc":
    case "twin":
    case "inverted":
      return { kind, ...coat, top_mm, disc_diameter_mm: disc };
    case "deckled":
      return { kind, ...coat, top_mm };
    default:
      return { kind, ...coat, top_mm, edges: "sharp" };
  }
}

/** The ways to cover. */
export const COVERS: readonly (Kind<Cover> & { does: string })[] = [
  { value: "none", words: "None", does: "", fields: [] },
  { value: "drape", words: "Drape", does: "draped in one sheet", fields: ["sheet", "overlap", "rolled"] },
  {
    value: "panel",
    words: "Panel",
    does: "wrapped in a panel",
    fields: ["sheet", "panelOverlap", "trim", "strip"],
  },
  { value: "box", words: "Box", does: "boxed in flat pieces", fields: ["sheet"] },
  { value: "halves", words: "Halves", does: "covered in two halves", fields: ["sheet", "overlap", "band"] },
  { value: "gores", words: "Gores", does: "covered in gores", fields: ["sheet", "gores"] },
  {
    value: "printed",
    words: "Printed",
    does: "wrapped in printed sheets",
    fields: ["sheetWide", "sheetHigh", "printedOverlap"],
  },
  {
    value: "collar",
    words: "Collar",
    does: "in a chocolate collar",
    fields: ["collarThick", "above", "overlap", "spread"],
  },
];

/** A tier's new cover, of the medium and colour it had where the new one is rolled too. */
export function recovered(tier: Tier, kind: Cover["kind"]): Cover {
  const before = tier.cover as { kind: string; medium?: string; colour?: string | null };
  const rolled = before.medium && before.kind !== "collar";
  const sheet = { medium: rolled ? (before.medium ?? "fondant") : "fondant", colour: before.colour };
  switch (kind) {
    case "none":
      return { kind };
    case "printed":
      return { kind, sheet_width_mm: 254, sheet_height_mm: 203.2, top: "none", directional: false };
    case "collar":
      return { kind, medium: "dark_chocolate", spread: 1 };
    case "panel":
      return { kind, ...sheet, top: "over", stripes: [], run: "upright", stripe_edges: "straight" };
    case "box":
      return { kind, ...sheet, corners: "butt" };
    case "gores":
      return { kind, ...sheet, count: 8 };
    default:
      return { kind, ...sheet };
  }
}
