import PlacesAbove from "@/drawing/PlacesAbove.vue";
import StackInside from "@/drawing/StackInside.vue";
import type { LensView } from "@/lenses/parts/lens";
import { notes } from "./notes";
import StackLens from "./StackLens.vue";

export const view: LensView = {
  panel: StackLens,
  notes,
  over: StackInside,
  below: {
    shown: (tier, carries) => carries || tier.stack.supports !== null || tier.layers.board !== null,
    what: PlacesAbove,
  },
};
