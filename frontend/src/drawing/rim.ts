/** What the glass at the rim of a tier shows: where it is held, and the bands of coats and cover it names. */
import type { Part, Silhouette } from "@/api/types";
import { boxOf, crossings } from "./annotations";

export interface Band {
  kind: Part["kind"];
  words: string;
  /** Its middle along the level line through the glass, mm from the axis. */
  x: number;
}

const WORDS: Partial<Record<Part["kind"], string>> = { crumb: "crumb", final: "coat", cover: "cover" };
/** The glass is held so far below the top of the cake within, so that a level line through it meets the wall alone, mm. */
const BELOW = 2;

/** Where the glass is held over a tier: at its rim where it is flat above, else at its wall half way up; mm. */
export function heldAt(
  outside: Pick<Silhouette, "outline">,
  parts: readonly Pick<Part, "kind" | "outline">[],
): { x: number; z: number } {
  const { x1, z0, z1 } = boxOf(outside.outline);
  const flat = Math.max(...outside.outline.filter(([, z = 0]) => z > z1 - 1e-6).map(([x = 0]) => x));
  const cake = parts.filter(({ kind }) => kind === "sponge").map(({ outline }) => boxOf(outline).z1);
  const z =
    flat > 0.6 * x1 ? Math.min(z1, ...cake.filter((up) => up === Math.max(...cake))) - BELOW : (z0 + z1) / 2;
  return { x: crossings(outside.outline, z)[0] ?? x1, z };
}

/** The coats and the cover a level line meets, from the cake outward; each of a kind once. */
export function bandsAt(parts: readonly Pick<Part, "kind" | "outline">[], z: number): Band[] {
  const found = new Map<Part["kind"], Band>();
  for (const { kind, outline } of parts) {
    const words = WORDS[kind];
    const [outer, inner] = words ? crossings(outline, z) : [];
    if (words && outer !== undefined && inner !== undefined && outer - inner > 0.05)
      found.set(kind, { kind, words, x: (outer + inner) / 2 });
  }
  return [...found.values()].sort((a, b) => a.x - b.x);
}
