/** The lenses of an order, in the order of the work: the spine, the keys, the address and the drawing read this list. */
import { brief } from "./brief";
import { carve } from "./carve";
import { coats } from "./coats";
import { cover } from "./cover";
import { layers } from "./layers";
import { mix } from "./mix";
import type { Lens } from "./parts/lens";
import { shop } from "./shop";
import { stack } from "./stack";

export const LENSES: readonly [Lens, ...Lens[]] = [brief, layers, coats, cover, carve, stack, mix, shop];

/**
 * The lens of that name, or that shows the checks about that subject: the shelf links to what an order needs without
 * loading the lenses. The first where there is none.
 */
export function lensCalled(name: string | undefined): Lens {
  return LENSES.find((one) => one.name === name || one.subject === name) ?? LENSES[0];
}
