/** The words of the trade that the screens use, each with the drawing and the part of it that shows what is meant. */

export type Scene = "rim" | "whole" | "flat" | "tools" | "bowl";

export interface Word {
  word: string;
  means: string;
  scene: Scene;
  part: string;
}

export const WORDS: readonly Word[] = [
  {
    word: "Board",
    means: "The thick board that the whole cake stands and travels on.",
    scene: "whole",
    part: "base",
  },
  {
    word: "Border",
    means: "A row of piped beads or shells where a tier meets what it stands on.",
    scene: "rim",
    part: "border",
  },
  {
    word: "Bowl",
    means: "One medium in one colour, mixed once for all the steps that take of it.",
    scene: "bowl",
    part: "mix",
  },
  {
    word: "Card",
    means: "The thin board under an upper tier. It rests on the supports, not on the cake below.",
    scene: "whole",
    part: "card",
  },
  {
    word: "Comes back",
    means: "What must be in hand while you work and goes back to the bowl clean: scrapings, trimmings.",
    scene: "bowl",
    part: "back",
  },
  {
    word: "Cover",
    means: "What goes over the coats: rolled fondant, printed sheets, a chocolate collar.",
    scene: "rim",
    part: "cover",
  },
  {
    word: "Crumb coat",
    means: "The first, thin coat. It holds the crumbs, and is chilled before the final one.",
    scene: "rim",
    part: "crumb",
  },
  {
    word: "Dam",
    means: "A piped ring of firm buttercream that keeps a soft filling from running out.",
    scene: "rim",
    part: "dam",
  },
  {
    word: "Disc",
    means: "A plate a little wider than the cake. A scraper held against it leaves the coat straight.",
    scene: "tools",
    part: "disc",
  },
  {
    word: "Dowel",
    means: "One rod through every tier into the board, so that none slides on the drive.",
    scene: "whole",
    part: "dowel",
  },
  {
    word: "Drape",
    means: "One rolled sheet, laid over top and sides at once.",
    scene: "flat",
    part: "sheet",
  },
  { word: "Filling", means: "What is spread between two layers.", scene: "rim", part: "filling" },
  {
    word: "Final coat",
    means: "The coat that is scraped smooth, or piped; it decides how the cake is seen.",
    scene: "rim",
    part: "final",
  },
  {
    word: "Gore",
    means: "One of several leaf-shaped pieces that cover a ball.",
    scene: "flat",
    part: "gore",
  },
  {
    word: "Hidden board",
    means: "A board inside a tall tier, on supports of its own, so that the lower half is not pressed.",
    scene: "whole",
    part: "inside",
  },
  {
    word: "Hidden cavity",
    means: "Layers cut out in the middle and filled with sweets, closed by a whole layer above.",
    scene: "whole",
    part: "room",
  },
  {
    word: "Lap",
    means: "The strip of a panel that lies over its other end where they meet.",
    scene: "flat",
    part: "lap",
  },
  {
    word: "Layer",
    means: "One slab of cake, levelled. Layers and fillings in turn make a tier.",
    scene: "rim",
    part: "layer",
  },
  { word: "Panel", means: "A rolled strip stood round a tier like a wall.", scene: "flat", part: "panel" },
  {
    word: "Patch",
    means: "One piece of a cover for a carved cake, cut so that it lies nearly flat.",
    scene: "flat",
    part: "patch",
  },
  {
    word: "Reserve",
    means: "What is mixed beyond the need, so that running short stays as rare as you chose.",
    scene: "bowl",
    part: "reserve",
  },
  { word: "Scraper", means: "The straight edge drawn round the side.", scene: "tools", part: "scraper" },
  {
    word: "Seal",
    means: "A thin coat of buttercream under a wet filling, so that the cake does not soak it up.",
    scene: "rim",
    part: "seal",
  },
  {
    word: "Supports",
    means: "Straws or rods cut flush with a tier, which carry the card of the tier above.",
    scene: "whole",
    part: "supports",
  },
  {
    word: "Tier",
    means: "One cake of those that stand on each other: layers, fillings, coats and cover.",
    scene: "whole",
    part: "tier",
  },
  {
    word: "Trim allowance",
    means: "What a sheet has beyond the hem, so that it can be trimmed clean at the board.",
    scene: "rim",
    part: "skirt",
  },
];

/** The words whose name or meaning has all that was typed. */
export function wordsLike(typed: string): readonly Word[] {
  const parts = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return WORDS.filter(({ word, means }) =>
    parts.every((one) => `${word} ${means}`.toLowerCase().includes(one)),
  );
}
