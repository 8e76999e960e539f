import type { LensView } from "@/lenses/parts/lens";
import CoatsLens from "./CoatsLens.vue";
import { notes } from "./notes";

export const view: LensView = {
  panel: CoatsLens,
  notes,
  byPlate: true,
  glass: true,
};
