/** The few small drawings that the words of the trade are shown on, 96 by 72, each part a path of its own. */
import type { Scene } from "./words";

export interface DrawnPart {
  part: string;
  d: string;
}

const box = (x: number, y: number, wide: number, high: number): string =>
  `M${x} ${y}h${wide}v${high}h${-wide}Z`;
const disc = (x: number, y: number, r: number): string =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;

/** The rim of a tier cut open, as under a glass: the outside is at the right. */
const RIM: readonly DrawnPart[] = [
  { part: "board", d: box(2, 62, 92, 7) },
  { part: "cover", d: "M2 6H82Q88 6 88 12V62H81V16Q81 13 78 13H2Z" },
  { part: "skirt", d: "M88 55H94V62H88Z" },
  { part: "final", d: "M2 13H78Q81 13 81 16V62H74V20H2Z" },
  { part: "crumb", d: "M2 20H74V62H70V24H2Z" },
  { part: "layer", d: box(2, 24, 68, 13) },
  { part: "seal", d: box(2, 37, 54, 2) },
  { part: "filling", d: box(2, 39, 56, 7) },
  { part: "dam", d: "M58 37H70V46H58Q54 41.500 58 37Z" },
  { part: "lower", d: box(2, 46, 68, 16) },
  { part: "border", d: disc(91, 58, 3.5) },
];
/** Two tiers on each other, cut open. */
const WHOLE: readonly DrawnPart[] = [
  { part: "base", d: box(6, 64, 84, 5) },
  { part: "lower", d: box(18, 34, 60, 30) },
  { part: "inside", d: box(22, 48, 52, 2.5) },
  { part: "card", d: box(30, 31.5, 36, 2.5) },
  { part: "tier", d: box(31, 6, 34, 25.5) },
  { part: "room", d: box(41, 14, 14, 11) },
  {
    part: "supports",
    d: `${box(26, 34, 3, 30)}${box(38, 34, 3, 30)}${box(55, 34, 3, 30)}${box(67, 34, 3, 30)}`,
  },
  { part: "dowel", d: box(47, 3, 2, 61) },
];
/** Pieces rolled out and cut, flat on the mat. */
const FLAT: readonly DrawnPart[] = [
  { part: "sheet", d: disc(22, 24, 19) },
  { part: "panel", d: box(6, 52, 84, 14) },
  { part: "lap", d: box(78, 52, 12, 14) },
  { part: "gore", d: "M52 4Q64 24 52 44Q40 24 52 4Z" },
  { part: "patch", d: "M66 8L88 4L93 26L80 44L68 30Z" },
];
/** A cake on the turntable with a disc on it, and the scraper at its side. */
const TOOLS: readonly DrawnPart[] = [
  { part: "lower", d: box(20, 24, 46, 38) },
  { part: "disc", d: box(16, 18, 54, 6) },
  { part: "base", d: box(10, 62, 66, 5) },
  { part: "scraper", d: "M70 8H88V20H75V62H70Z" },
];
const BOWL: readonly DrawnPart[] = [
  { part: "mix", d: "M11 26H85Q82 64 48 64Q14 64 11 26Z" },
  { part: "reserve", d: "M11 26H85L84 34H12Z" },
  { part: "back", d: "M12 34H84Q82 42 78 48H18Q14 42 12 34Z" },
];
const SCENES: Record<Scene, readonly DrawnPart[]> = {
  rim: RIM,
  whole: WHOLE,
  flat: FLAT,
  tools: TOOLS,
  bowl: BOWL,
};

export function sceneOf(scene: Scene): readonly DrawnPart[] {
  return SCENES[scene];
}
