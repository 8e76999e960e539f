import TurnedPoints from "@/drawing/TurnedPoints.vue";
import type { LensView } from "@/lenses/parts/lens";
import BriefLens from "./BriefLens.vue";
import { notes } from "./notes";

export const view: LensView = {
  panel: BriefLens,
  notes,
  over: TurnedPoints,
};
