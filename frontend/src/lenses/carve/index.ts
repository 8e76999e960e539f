import CarvedViews from "@/drawing/CarvedViews.vue";
import type { LensView } from "@/lenses/parts/lens";
import CarveLens from "./CarveLens.vue";

export const view: LensView = {
  panel: CarveLens,
  below: { shown: (tier) => tier.carving !== null, what: CarvedViews },
};
