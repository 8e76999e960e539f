/**
 * Two people's changes of one document put together, place by place: what only one of them changed is as that one has it,
 * what both changed alike is so, and what both changed otherwise is told.
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
