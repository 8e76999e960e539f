import Vessels from "@/drawing/Vessels.vue";
import type { LensView } from "@/lenses/parts/lens";
import MixLens from "./MixLens.vue";

export const view: LensView = {
  panel: MixLens,
  middle: Vessels,
  ownBowls: true,
};
