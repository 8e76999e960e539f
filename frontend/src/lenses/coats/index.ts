import type { Lens } from "@/lenses/parts/lens";
import CoatsLens from "./CoatsLens.vue";
import { notes } from "./notes";

export const coats: Lens = {
  name: "coats",
  words: "Coats",
  subject: "coats",
  panel: CoatsLens,
  notes,
  byPlate: true,
  glass: true,
};
