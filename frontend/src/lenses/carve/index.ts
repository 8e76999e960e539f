import CarvedViews from "@/drawing/CarvedViews.vue";
import type { Lens } from "@/lenses/parts/lens";
import CarveLens from "./CarveLens.vue";

export const carve: Lens = {
  name: "carve",
  words: "Carve",
  subject: "body",
  panel: CarveLens,
  below: { shown: (tier) => tier.carving !== null, what: CarvedViews },
};
