/** Light, dark and roundness in flat ink. */
import type { Silhouette } from "@/api/types";
import palette from "./palette.json";

const materials: Readonly<Record<string, string>> = palette;

/** The colour of what a plan paints in a colour or as a material. */
export function hexOf(paint: string): string {
  return materials[paint] ?? paint;
}

/** Whether ink would be lost on this colour: relative luminance (sRGB weights) below a third. */
export function isDark(hex: string): boolean {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map(
    (at) => Number.parseInt(hex.slice(at, at + 2), 16) / 255,
  );
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue < 0.36;
}

type Points = readonly (readonly number[])[];

/** The left half of a tier from outside, as if it were the right: of most it is the same. */
export function leftOf(tier: Pick<Silhouette, "outline" | "left">): [number, number][] {
  return (tier.left?.length ? tier.left : tier.outline) as [number, number][];
}

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

/** The stripes that lie round a tier, as edges of its half outline: each colour between two heights of its wall. */
export function bandsUp(
  bands: readonly (readonly [string, number])[],
  outline: Points,
): { hex: string; edge: [number, number][] }[] {
  const wall = wallAt(outline, 1);
  const heights = wall.map(([, z]) => z);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const at = (z: number): number => {
    for (let index = 1; index < wall.length; index += 1) {
      const [x0, z0] = wall[index - 1] ?? [0, 0];
      const [x1, z1] = wall[index] ?? [0, 0];
      if (z >= z0 && z <= z1 && z1 > z0) return x0 + ((x1 - x0) * (z - z0)) / (z1 - z0);
    }
    return wall.at(-1)?.[0] ?? 0;
  };
  let up = low;
  return bands.map(([hex, share]) => {
    const [from, to] = [up, Math.min(high, up + share * (high - low))];
    up = to;
    const between = wall.filter(([, z]) => z > from && z < to);
    const side: [number, number][] = [[at(from), from], ...between, [at(to), to]];
    return { hex, edge: [[0, from], ...side, [0, to]] };
  });
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

/** How colours begin, until they are shown as they are to be mixed. */
const BEGIN = [
  "#E9C9B8",
  "#A9BE93",
  "#E3A63A",
  "#8FB0C4",
  "#B4576A",
  "#C9B6DB",
  "#F2DE9B",
  "#6F8F84",
  "#C98A5B",
];

/** A colour to begin with, the farthest of those on offer from every colour there is. */
export function unlike(shown: readonly string[]): string {
  const parts = (hex: string): number[] => [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16));
  const apart = (one: string, other: string): number =>
    Math.hypot(...parts(one).map((value, index) => value - (parts(other)[index] ?? 0)));
  const nearest = (hex: string): number => Math.min(Infinity, ...shown.map((one) => apart(hex, one)));
  return BEGIN.reduce((best, hex) => (nearest(hex) > nearest(best) ? hex : best));
}
