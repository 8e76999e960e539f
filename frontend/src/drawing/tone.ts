/** Light, dark and roundness in flat ink. */
import type { Silhouette } from "@/api/types";

/** Whether ink would be lost on this colour: relative luminance (sRGB weights) below a third. */
export function isDark(hex: string): boolean {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map(
    (at) => Number.parseInt(hex.slice(at, at + 2), 16) / 255,
  );
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue < 0.36;
}

type Points = readonly (readonly number[])[];

/** The wall of a half outline, foot to top, drawn in toward the axis to a share of its width. */
export function wallAt(outline: Points, share: number): [number, number][] {
  return outline.filter(([x = 0]) => x > 1e-6).map(([x = 0, z = 0]): [number, number] => [x * share, z]);
}

/**
 * The stripes of a panel as they show on the left half: each colour with the shares of the half width it lies
 * between (below 0 to the right). The panel begins at the back and runs round by the left, so its second quarter
 * shows on the left half and its third, with `begin` at a half, on the right.
 */
export function bandsSeen(
  bands: readonly (readonly [string, number])[],
  begin = 0.25,
): [string, number, number][] {
  const seen: [string, number, number][] = [];
  let at = 0;
  for (const [hex, share] of bands) {
    const [from, to] = [Math.max(at, begin), Math.min(at + share, begin + 0.25)];
    if (to > from) {
      const across = (turn: number): number => Math.cos((turn - 0.25) * 2 * Math.PI);
      seen.push([hex, across(from), across(to)]);
    }
    at += share;
  }
  return seen;
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

/** A colour between two others, `share` of the way from the first to the second, as it is shown. */
export function mixed(from: string, to: string, share: number): string {
  const at = (hex: string, place: number): number => Number.parseInt(hex.slice(place, place + 2), 16);
  const between = [1, 3, 5].map((place) =>
    Math.round(at(from, place) + (at(to, place) - at(from, place)) * share),
  );
  return `#${between.map((value) => value.toString(16).padStart(2, "0")).join("")}`.toUpperCase();
}
