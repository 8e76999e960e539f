import type { Lens } from "@/lenses/parts/lens";
import LayersLens from "./LayersLens.vue";
import { notes } from "./notes";

export const layers: Lens = {
  name: "layers",
  words: "Layers",
  subject: "layers",
  panel: LayersLens,
  notes,
  heights: true,
};
