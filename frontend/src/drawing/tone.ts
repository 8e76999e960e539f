/** Light, dark and roundness in flat ink. */
import type { Silhouette } from "@/api/types";

/** Whether ink would be lost on this colour: relative luminance (sRGB weights) below a third. */
export function isDark(hex: string): boolean {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map(
    (at) => Number.parseInt(hex.slice(at, at + 2), 16) / 255,
  );
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue < 0.36;
}

/** Where a tier's wall shows upright lines: as a drum would look, or at the edges between flat faces. */
export function wallLines(tier: Pick<Silhouette, "curved" | "edges">, half: number): number[] {
  return tier.curved ? engraving(half) : tier.edges;
}

/** Where upright engraved lines stand on a drum of this half-width, closer toward its edge, as they would look. */
function engraving(half: number, count = 11): number[] {
  const turn = Math.PI / 2 / count;
  return Array.from({ length: 6 }, (_, index) => half * Math.sin(Math.PI / 2 - turn * (index + 0.9)));
}
