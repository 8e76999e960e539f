import RolledOut from "@/drawing/RolledOut.vue";
import type { Lens } from "@/lenses/parts/lens";
import CoverLens from "./CoverLens.vue";
import { notes } from "./notes";

export const cover: Lens = {
  name: "cover",
  words: "Cover",
  subject: "cover",
  panel: CoverLens,
  notes,
  glass: true,
  below: { shown: (tier) => (tier.cover?.laid.length ?? 0) > 0, what: RolledOut, beside: true },
};
