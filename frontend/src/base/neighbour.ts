/** The id that stands so many places after another in a list; from outside the list, its first or its last. */
export function neighbour(ids: readonly string[], id: string, by: number): string {
  const at = ids.indexOf(id);
  const last = ids.length - 1;
  const next = at < 0 ? (by > 0 ? 0 : last) : Math.min(Math.max(at + by, 0), last);
  return ids[next] ?? "";
}
