import type { LensView } from "@/lenses/parts/lens";
import LayersLens from "./LayersLens.vue";
import { notes } from "./notes";

export const view: LensView = {
  panel: LayersLens,
  notes,
  heights: true,
};
