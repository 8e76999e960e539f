/** What is written beside the half-section: dimensions and leaders, each to a figure, many editable. */
import type { Figure, Part, Plan, Tier } from "@/api/types";

export interface Box {
  x0: number;
  x1: number;
  z0: number;
  z1: number;
}

/** `height` measures a box up its right side, `point` leads to the middle of a box. All in mm. */
export interface Annotation {
  label: string;
  figure: Figure;
  mark: "height" | "point";
  box: Box;
  /** How far right of the cake's own edge a height is measured, as a number of steps. */
  step?: number;
  /** How far across its box a point lies, from the axis outward. */
  at?: number;
  tier?: number;
  /** The path below the tier of the field it is, where it can be changed here. */
  field?: string;
}

export function boxOf(outline: readonly (readonly number[])[]): Box {
  const xs = outline.map(([x = 0]) => x);
  const zs = outline.map(([, z = 0]) => z);
  return { x0: Math.min(...xs), x1: Math.max(...xs), z0: Math.min(...zs), z1: Math.max(...zs) };
}

/** The tier a place of the plan belongs to, counted from 0; -1 for what is of the whole cake. */
export function tierIn(plan: Plan | null | undefined, place: string): number {
  const [room, id] = place.split(".");
  return room === "tiers" ? (plan?.tiers.findIndex((tier) => tier.id === id) ?? -1) : -1;
}

export type Outlined = Box & { outline: readonly (readonly number[])[] };

/** A box as it lies where its tier stands off the middle of the cake. */
function moved(box: Box, off: readonly number[] | undefined): Box {
  const by = off?.[0] ?? 0;
  return { ...box, x0: box.x0 + by, x1: box.x1 + by };
}

/** The parts of one tier (counted from 0), of one kind, from the foot up. */
export function partsOf(plan: Plan, tier: number, kind: Part["kind"]): Outlined[] {
  const place = `tiers.${plan.tiers[tier]?.id}.`;
  return plan.section.parts
    .filter((part) => part.kind === kind && part.place.startsWith(place))
    .map((part) => ({ ...moved(boxOf(part.outline), part.off), outline: part.outline }));
}

/** Where a closed outline crosses a height, the farthest out first; nothing where it does not come so high. */
export function crossings(outline: readonly (readonly number[])[], up: number): number[] {
  const found = outline.flatMap(([x0 = 0, z0 = 0], index) => {
    const [x1 = 0, z1 = 0] = outline[(index + 1) % outline.length] ?? [];
    if (z0 === z1 || up < Math.min(z0, z1) || up > Math.max(z0, z1)) return [];
    return [x0 + ((x1 - x0) * (up - z0)) / (z1 - z0)];
  });
  return found.sort((a, b) => b - a);
}

export function outside(plan: Plan, tier: number): Box {
  const silhouette = plan.section.tiers[tier];
  return moved(boxOf(silhouette?.outline ?? [[0, 0]]), silhouette?.off);
}

/** What is written beside the drawing, for the tier in hand (counted from 0). */
export type Notes = (plan: Plan, tiers: Tier[], tier: number) => Annotation[];

/** A drum on its side shows its face: how high it stands is all that can be measured up it. */
export function standing(plan: Plan, tier: number): Annotation[] {
  const foot = plan.tiers[tier]?.foot;
  if (!foot) return [];
  return [
    { label: "stands", figure: foot.height_left, mark: "height", box: outside(plan, tier) },
    {
      label: "foot",
      figure: foot.width,
      mark: "point",
      box: { ...outside(plan, tier), z1: outside(plan, tier).z0, x1: foot.width.value / 2, x0: 0 },
      at: 0.5,
    },
  ];
}

/** The wall of a coat at a share of its height, as a box to point at: from its outer face in to its inner one. */
export function wall(ring: Outlined, at: number): Box {
  const z = ring.z0 + (ring.z1 - ring.z0) * at;
  const [x1 = ring.x1, x0 = x1] = crossings(ring.outline, z);
  return { x0, x1, z0: z, z1: z };
}
