/** The lenses of an order, in the order of the work. */

export type LensName = "brief" | "layers" | "coats" | "cover" | "mix" | "shop";

export const LENSES: readonly { name: LensName; words: string; perTier: boolean }[] = [
  { name: "brief", words: "Brief", perTier: false },
  { name: "layers", words: "Layers", perTier: true },
  { name: "coats", words: "Coats", perTier: true },
  { name: "cover", words: "Cover", perTier: true },
  { name: "mix", words: "Mix", perTier: false },
  { name: "shop", words: "Shop", perTier: false },
];
