/** What was saved of an order elsewhere, and what was changed here since an earlier revision, put together. */
import { answered, api } from "@/api/client";
import type { Document, Order } from "@/api/types";
import { type Differing, merged } from "@/base/merge";
import { renameColour } from "./colours";

export interface Joined {
  /** The order as it was saved elsewhere. */
  found: Order;
  /** Both changes; where they differ, with mine or with theirs. */
  mine: Document;
  theirs: Document;
  differing: Differing[];
}

/**
 * The order as it stands and `mine` together, both made from revision `revision`, which is read where `base` is not known;
 * nothing where no other revision was saved. Throws Unreachable or Refused.
 */
export async function joined(
  id: string,
  revision: number,
  base: Document | null,
  mine: Document,
): Promise<Joined | null> {
  const params = { path: { id, number: revision } };
  const from =
    base ?? ((await answered(api.GET("/api/orders/{id}/revisions/{number}", { params }))) as Document);
  const found = (await answered(api.GET("/api/orders/{id}", { params: { path: { id } } }))) as Order;
  if (found.revision === revision) return null;
  const { value, differing } = merged<Document>(from, mine, found.document);
  const { value: theirs } = merged<Document>(from, found.document, mine);
  return { found, mine: withNewNames(from, value), theirs: withNewNames(from, theirs), differing };
}

/**
 * A merged document in which everything that asks for a renamed colour asks for its new name: one person renamed it while
 * the other used the old name somewhere new.
 */
function withNewNames(from: Document, both: Document): Document {
  const document = structuredClone(both);
  const { colours } = document.design;
  for (const { id, name: before } of from.design.colours) {
    const now = colours.find((colour) => colour.id === id)?.name;
    const free = !colours.some((colour) => colour.name === before);
    if (now !== undefined && now !== before && free) renameColour(document.design, before, now);
  }
  return document;
}
