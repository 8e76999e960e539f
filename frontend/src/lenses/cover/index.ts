import RolledOut from "@/drawing/RolledOut.vue";
import type { LensView } from "@/lenses/parts/lens";
import CoverLens from "./CoverLens.vue";
import { notes } from "./notes";

export const view: LensView = {
  panel: CoverLens,
  notes,
  glass: true,
  below: { shown: (tier) => (tier.cover?.laid.length ?? 0) > 0, what: RolledOut, beside: true },
};
