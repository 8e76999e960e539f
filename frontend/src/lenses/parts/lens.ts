/** What a lens is: one way of looking at an order. What it shows and decides is loaded when it is first looked through. */
import type { Component } from "vue";
import type { Check, TierPlan } from "@/api/types";
import type { Notes } from "@/drawing/annotations";

export interface Lens {
  /** Its name in the address. */
  name: string;
  words: string;
  /** What the checks are about that it shows. */
  subject?: Check["subject"];
  /** For when the work is done, below those that plan it. */
  doing?: boolean;
  load: () => Promise<{ view: LensView }>;
}

export interface LensView {
  /** What it decides and lists, at the right. */
  panel: Component;
  /** What stands in the middle in place of the half-section. */
  middle?: Component;
  /** What stands in the middle below the half-section, where the selected tier has such a thing, or carries another. */
  below?: {
    shown: (tier: TierPlan, carries: boolean) => boolean;
    what: Component;
    /** Beside the half-section where the window is wide, rather than below it. */
    beside?: boolean;
  };
  /** What it writes beside the half-section. */
  notes?: Notes;
  /** What it draws over the tier in hand. */
  over?: Component;
  /** The running heights of the tier in hand stand in a column left of it. */
  heights?: boolean;
  /** A glass is held over the rim of the tier in hand. */
  glass?: boolean;
  /** It shows the bowls itself, so that none stand below it. */
  ownBowls?: boolean;
  /** The edge of the tier in hand is drawn out by its disc or card, where it has one, and not by its tin. */
  byPlate?: boolean;
}
