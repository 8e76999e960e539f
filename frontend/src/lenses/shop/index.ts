import type { Lens } from "@/lenses/parts/lens";
import ShopLens from "./ShopLens.vue";
import ShopList from "./ShopList.vue";

export const shop: Lens = {
  name: "shop",
  words: "Shop",
  panel: ShopLens,
  middle: ShopList,
};
