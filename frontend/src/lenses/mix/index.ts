import Vessels from "@/drawing/Vessels.vue";
import type { Lens } from "@/lenses/parts/lens";
import MixLens from "./MixLens.vue";

export const mix: Lens = {
  name: "mix",
  words: "Mix",
  subject: "bowls",
  panel: MixLens,
  middle: Vessels,
  ownBowls: true,
};
