import TurnedPoints from "@/drawing/TurnedPoints.vue";
import type { Lens } from "@/lenses/parts/lens";
import BriefLens from "./BriefLens.vue";
import { notes } from "./notes";

export const brief: Lens = {
  name: "brief",
  words: "Brief",
  subject: "order",
  panel: BriefLens,
  notes,
  over: TurnedPoints,
};
