/**
 * The parts of a tier and the kinds of each, as the handbook lists them: what they are called, the numbers and choices
 * they ask for, and how a new one begins. A part is named by its path below the tier (`final`, `layers/syrup`,
 * `borders/0`, nothing for the tier itself), a field by the path of its part and its own name.
 */
import { tenth } from "@/base/round";
import type { Ask, Kind, Practice, Tier } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";

type Held = Record<string, unknown>;

/** What a tier has at a path; nothing where it has no such part. */
export function partAt(tier: Tier, path: string): Held | null {
  let node: unknown = tier;
  for (const step of path ? path.split("/") : []) node = (node as Held | null)?.[step];
  return node && typeof node === "object" ? (node as Held) : null;
}

function split(path: string): [string, string] {
  const cut = path.lastIndexOf("/");
  return [path.slice(0, Math.max(0, cut)), path.slice(cut + 1)];
}

/** The number at a field, nothing where it is left to the usual or the tier has no such part. */
export function valueAt(tier: Tier, path: string): number | null {
  const [part, field] = split(path);
  const value = partAt(tier, part)?.[field];
  return typeof value === "number" ? value : null;
}

/** Set a field, where the tier has the part it belongs to. */
export function setAt(tier: Tier, path: string, value: unknown): void {
  const [part, field] = split(path);
  const holder = partAt(tier, part);
  if (holder) holder[field] = value;
}

/** Every kind of a part. */
export function kindsOf(part: string): Kind[] {
  const path = part.replaceAll(/\/\d+/g, "");
  return useHandbook().book?.parts.find((one) => one.path === path)?.kinds ?? [];
}

/** Every kind of a part, to choose among. */
export function choicesOf<T extends string>(part: string): { value: T; words: string; icon: string }[] {
  return kindsOf(part).map((one) => ({ value: one.kind as T, words: one.words, icon: one.icon }));
}

/** The kind of what a tier has at a path. */
export function kindAt(tier: Tier, part: string): Kind | undefined {
  const held = partAt(tier, part);
  const own = typeof held?.kind === "string" ? held.kind : "";
  return held ? kindsOf(part).find((one) => one.kind === own) : undefined;
}

/** What a field asks for, where the part's kind has such a field. */
export function askAt(tier: Tier, path: string): Ask | undefined {
  const [part, field] = split(path);
  return kindAt(tier, part)?.asks.find((one) => one.field === field);
}

/** The choice at a field, where the part's kind has such a field. */
export function pickAt(tier: Tier, path: string): Kind["picks"][number] | undefined {
  const [part, field] = split(path);
  return kindAt(tier, part)?.picks.find((one) => one.field === field);
}

/** The usual value of a field; a final coat may have another for the crumb coat below it. */
export function usualAt(tier: Tier, path: string, practice: Practice): number | undefined {
  const other = path === "crumb/thickness_mm" ? kindAt(tier, "final")?.crumb : null;
  const name = other ?? askAt(tier, path)?.usual;
  const value = name ? practice[name as keyof Practice] : undefined;
  return typeof value === "number" ? value : undefined;
}

/**
 * A new one of a kind, of sizes that stand on the tin: it keeps what the one before it had and it can have too. `given`
 * is what is worked out for it elsewhere.
 */
export function newOfKind<T>(tier: Tier, part: string, kind: string, given: Held = {}): T {
  const row = kindsOf(part).find((one) => one.kind === kind);
  if (!row) throw new Error(`no kind of ${part} is called ${kind}`);
  const now = partAt(tier, part) ?? {};
  // Where nothing was spread, the new coat is of what lies below it.
  const below = part === "final" && !("medium" in now);
  const before: Held = below ? { ...tier.crumb, ...now } : now;
  const media = kindAt(tier, below ? "crumb" : part)?.media ?? [];
  const sizes = Object.entries(row.of_tin).map(([field, share]) => [
    field,
    tenth(tier.tin_diameter_mm * share),
  ]);
  const kept = row.keeps
    .filter((field) => before[field] !== undefined && before[field] !== null)
    .filter((field) => field !== "medium" || row.media.some((one) => media.includes(one)))
    .map((field) => [field, before[field]]);
  return structuredClone({
    ...row.begins,
    ...Object.fromEntries(sizes),
    ...given,
    ...Object.fromEntries(kept),
  }) as T;
}

/** Whether a tier has an outline of its own from above, whatever tins it is baked in. */
export function ownOutline(tier: Tier): boolean {
  return kindAt(tier, "build")?.own_outline ?? false;
}

/** Whether a final coat is scraped against a disc or card. */
export function isPlate(final: Tier["final"]): final is Extract<Tier["final"], { disc_diameter_mm: number }> {
  return "disc_diameter_mm" in final;
}
