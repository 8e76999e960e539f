/** Changes to plain data: the operations of JSON Patch (RFC 6902) that add to a list, remove, and replace. */
export interface Change {
  op: "add" | "remove" | "replace";
  /** A JSON Pointer; “-” is the end of a list. */
  path: string;
  value?: unknown;
}

/** Make some changes in place. Throws where a path leads nowhere. */
export function patch(data: object, changes: readonly Change[]): void {
  for (const { op, path, value } of changes) {
    const names = path.split("/").slice(1);
    const last = names.pop() ?? "";
    const part = names.reduce<unknown>(
      (at, name) => (at as Record<string, unknown> | undefined)?.[name],
      data,
    );
    if (typeof part !== "object" || part === null) throw new Error(`nothing stands at ${path}`);
    if (!Array.isArray(part)) {
      if (op === "remove") Reflect.deleteProperty(part, last);
      else (part as Record<string, unknown>)[last] = value;
      continue;
    }
    const at = last === "-" ? part.length : Number(last);
    if (op === "replace") part[at] = value;
    else part.splice(at, op === "remove" ? 1 : 0, ...(op === "add" ? [value] : []));
  }
}
