import type { LensView } from "@/lenses/parts/lens";
import ShopLens from "./ShopLens.vue";
import ShopList from "./ShopList.vue";

export const view: LensView = {
  panel: ShopLens,
  middle: ShopList,
};
