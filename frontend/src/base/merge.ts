/**
 * Two people's changes of one document put together, place by place: what only one of them changed is as that one has it,
 * what both changed alike is so, and what both changed differently is reported. Parts with ids are compared by them.
 */

export type Path = readonly (string | number)[];

/** A place that both changed, and what each has there. */
export interface Differing {
  path: Path;
  mine: unknown;
  theirs: unknown;
}

export interface Merged<T> {
  value: T;
  differing: Differing[];
}

type Held = Record<string, unknown>;
const held = (value: unknown): value is Held =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Whether two pieces of JSON say the same, in whatever order their fields stand. */
export function alike(one: unknown, other: unknown): boolean {
  if (Array.isArray(one) && Array.isArray(other))
    return one.length === other.length && one.every((value, at) => alike(value, other[at]));
  if (held(one) && held(other)) {
    const names = new Set([...Object.keys(one), ...Object.keys(other)]);
    return [...names].every((name) => alike(one[name], other[name]));
  }
  return one === other;
}

/** `mine` and `theirs`, both made from `base`; where they differ, `value` has mine. */
export function merged<T>(base: T, mine: T, theirs: T): Merged<T> {
  const differing: Differing[] = [];
  return { value: together(base, mine, theirs, [], differing) as T, differing };
}

function together(
  base: unknown,
  mine: unknown,
  theirs: unknown,
  path: Path,
  differing: Differing[],
): unknown {
  if (alike(mine, theirs) || alike(base, theirs)) return mine;
  if (alike(base, mine)) return theirs;
  if (held(base) && held(mine) && held(theirs) && base.kind === mine.kind && base.kind === theirs.kind) {
    const names = new Set([...Object.keys(mine), ...Object.keys(theirs)]);
    return Object.fromEntries(
      [...names].map((name) => [
        name,
        together(base[name], mine[name], theirs[name], [...path, name], differing),
      ]),
    );
  }
  if (identified(base) && identified(mine) && identified(theirs))
    return byId(base, mine, theirs, path, differing);
  if (Array.isArray(base) && Array.isArray(mine) && Array.isArray(theirs) && grown(base, mine, theirs)) {
    const both = base.map((value, at) => together(value, mine[at], theirs[at], [...path, at], differing));
    const longer: unknown[] = mine.length > base.length ? mine : theirs;
    return [...both, ...longer.slice(base.length)];
  }
  differing.push({ path, mine, theirs });
  return mine;
}

/** Whether a list of parts kept its places: nothing was taken out of it, and only one of the two added to its end. */
function grown(base: unknown[], mine: unknown[], theirs: unknown[]): boolean {
  const parts = [...base, ...mine, ...theirs].every(held);
  const kept = mine.length >= base.length && theirs.length >= base.length;
  return parts && kept && (mine.length === base.length || theirs.length === base.length);
}

type Part = Held & { id: string };

/** Whether a value is a list of parts that each have an id of their own. */
function identified(value: unknown): value is Part[] {
  if (!Array.isArray(value)) return false;
  const ids = value.map((part) => (held(part) && typeof part.id === "string" ? part.id : ""));
  return ids.every(Boolean) && new Set(ids).size === ids.length;
}

/**
 * Two lists of parts put together part by part, wherever each part now is. A part that one took out is gone unless the
 * other changed it.
 */
function byId(base: Part[], mine: Part[], theirs: Part[], path: Path, differing: Differing[]): Part[] {
  const [before, ours, others] = [base, mine, theirs].map(
    (list) => new Map(list.map((part) => [part.id, part])),
  );
  const value = new Map<string, Part>();
  mine.forEach((part, at) => {
    const [was, other] = [before?.get(part.id), others?.get(part.id)];
    if (other) value.set(part.id, together(was, part, other, [...path, at], differing) as Part);
    else if (!alike(was, part)) {
      value.set(part.id, part);
      if (was) differing.push({ path: [...path, at], mine: part, theirs: undefined });
    }
  });
  for (const part of theirs) {
    if (ours?.has(part.id)) continue;
    const was = before?.get(part.id);
    if (!was) value.set(part.id, part);
    else if (!alike(was, part)) differing.push({ path, mine: undefined, theirs: part });
  }
  return inOrder(base, mine, theirs, value);
}

/** The parts in the order of whoever moved some, mine first; what only the other has comes after what it came after there. */
function inOrder(base: Part[], mine: Part[], theirs: Part[], value: Map<string, Part>): Part[] {
  const everywhere = base
    .map((part) => part.id)
    .filter((id) => [mine, theirs].every((list) => list.some((part) => part.id === id)));
  const orderIn = (list: Part[]): string[] =>
    list.map((part) => part.id).filter((id) => everywhere.includes(id));
  const [first, second] = alike(orderIn(mine), everywhere) ? [theirs, mine] : [mine, theirs];
  const order = first.map((part) => part.id);
  second.forEach((part, at) => {
    if (order.includes(part.id)) return;
    const after = second
      .slice(0, at)
      .map((one) => one.id)
      .findLast((id) => order.includes(id));
    order.splice(after === undefined ? 0 : order.indexOf(after) + 1, 0, part.id);
  });
  return order.flatMap((id) => value.get(id) ?? []);
}
