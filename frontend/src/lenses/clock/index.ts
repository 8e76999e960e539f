import type { LensView } from "@/lenses/parts/lens";
import ClockDay from "./ClockDay.vue";
import ClockLens from "./ClockLens.vue";

export const view: LensView = {
  panel: ClockLens,
  middle: ClockDay,
  ownBowls: true,
};
