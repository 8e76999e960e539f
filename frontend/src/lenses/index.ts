/** The lenses of an order, in the order of the work: the spine, the keys, the address and the drawing read this list. */
import type { Lens } from "./parts/lens";

export const LENSES: readonly [Lens, ...Lens[]] = [
  { name: "brief", words: "Brief", subject: "order", load: () => import("./brief") },
  { name: "layers", words: "Layers", subject: "layers", load: () => import("./layers") },
  { name: "coats", words: "Coats", subject: "coats", load: () => import("./coats") },
  { name: "cover", words: "Cover", subject: "cover", load: () => import("./cover") },
  { name: "carve", words: "Carve", subject: "body", load: () => import("./carve") },
  { name: "stack", words: "Stack", subject: "stack", load: () => import("./stack") },
  { name: "mix", words: "Mix", subject: "bowls", load: () => import("./mix") },
  { name: "shop", words: "Shop", load: () => import("./shop") },
  { name: "clock", words: "Clock", subject: "clock", doing: true, load: () => import("./clock") },
];

/** The key of each lens, by its place: the digits, and after the ninth the row of letters below them. */
export const LENS_KEYS: readonly string[] = Array.from("123456789QWERTYUIOP");

/** The lens that a key looks through, if it is the key of one. */
export function lensByKey(key: string, lenses: readonly Lens[] = LENSES): Lens | undefined {
  return lenses[LENS_KEYS.indexOf(key.toUpperCase())];
}

/**
 * The lens of that name, or that shows the checks about that subject: the shelf links to what an order needs without
 * loading the lenses. The first where there is none.
 */
export function lensCalled(name: string | undefined): Lens {
  return LENSES.find((one) => name && (one.name === name || one.subject === name)) ?? LENSES[0];
}
