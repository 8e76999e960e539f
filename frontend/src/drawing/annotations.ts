/** What each lens writes beside the half-section: dimensions and leaders, each to a figure, many editable. */
import type { Figure, Part, Plan, Tier } from "@/api/types";
import { askAt } from "@/order/kinds";
import type { LensName } from "@/lenses/lenses";

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

type Outlined = Box & { outline: readonly (readonly number[])[] };

/** The parts of one tier (counted from 0), of one kind, from the foot up. */
function partsOf(plan: Plan, tier: number, kind: Part["kind"]): Outlined[] {
  const place = `tiers.${tier + 1}.`;
  return plan.section.parts
    .filter((part) => part.kind === kind && part.place.startsWith(place))
    .map((part) => ({ ...boxOf(part.outline), outline: part.outline }));
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

function outside(plan: Plan, tier: number): Box {
  const silhouette = plan.section.tiers[tier];
  return boxOf(silhouette?.outline ?? [[0, 0]]);
}

type Lens = (plan: Plan, tiers: Tier[], tier: number) => Annotation[];

const brief: Lens = (plan) =>
  plan.tiers.map((planned, index) => ({
    label: "high",
    figure: planned.stack.height,
    mark: "height",
    box: outside(plan, index),
    tier: index,
  }));

const layers: Lens = (plan, tiers, tier) => {
  const planned = plan.tiers[tier];
  const sponges = partsOf(plan, tier, "sponge");
  const [lowest] = sponges;
  const highest = sponges.at(-1);
  if (planned?.foot) return standing(plan, tier);
  if (!planned || !lowest || !highest) return [];
  const found: Annotation[] = [
    {
      label: "filled",
      figure: planned.layers.height,
      mark: "height",
      box: { ...lowest, x1: outside(plan, tier).x1, z1: highest.z1 },
      step: 1,
    },
    {
      label: "cut at",
      figure: planned.layers.cut_height,
      mark: "height",
      box: { ...lowest, x1: outside(plan, tier).x1 },
      field: "layers/height_mm",
      tier,
    },
  ];
  const [gap] = partsOf(plan, tier, "filling");
  if (gap) {
    const figure = planned.layers.filling.thickness;
    found.push({
      label: "filling",
      figure,
      mark: "point",
      box: gap,
      at: 0.8,
      field: "filling/thickness_mm",
      tier,
    });
  }
  const dam = partsOf(plan, tier, "dam").at(-1);
  if (dam && planned.layers.filling.dam_width && tiers[tier]?.filling.kind === "soft") {
    found.push({
      label: "dam",
      figure: planned.layers.filling.dam_width,
      mark: "point",
      box: dam,
      field: "filling/dam_width_mm",
      tier,
    });
  }
  return found;
};

/** A drum on its side shows its face: how high it stands is all that can be measured up it. */
function standing(plan: Plan, tier: number): Annotation[] {
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
function wall(ring: Outlined, at: number): Box {
  const z = ring.z0 + (ring.z1 - ring.z0) * at;
  const [x1 = ring.x1, x0 = x1] = crossings(ring.outline, z);
  return { x0, x1, z0: z, z1: z };
}

const coats: Lens = (plan, tiers, tier) => {
  const planned = plan.tiers[tier];
  if (!planned) return [];
  const found: Annotation[] = [];
  const [crumb] = partsOf(plan, tier, "crumb");
  const [final] = partsOf(plan, tier, "final");
  const [sponge] = partsOf(plan, tier, "sponge");
  if (crumb && sponge) {
    const figure = planned.coats.crumb.side;
    found.push({
      label: "crumb",
      figure,
      mark: "point",
      box: wall(crumb, 0.3),
      field: "crumb/thickness_mm",
      tier,
    });
  }
  if (final && planned.coats.final) {
    const own = (field: string): string | undefined =>
      tiers[tier] && askAt(tiers[tier], field) ? field : undefined;
    found.push({
      label: "side",
      figure: planned.coats.final.side,
      mark: "point",
      box: wall(final, 0.6),
      field: own("final/side_mm"),
      tier,
    });
    if (planned.foot) return [...found, ...standing(plan, tier)];
    const top = { x0: final.x1 * 0.55, x1: final.x1 * 0.55, z0: crumb?.z1 ?? final.z1, z1: final.z1 };
    found.push({
      label: "top",
      figure: planned.coats.final.top,
      mark: "point",
      box: top,
      field: own("final/top_mm"),
      tier,
    });
  }
  const over = planned.coats.final ?? planned.coats.crumb;
  const ring = final ?? crumb;
  if (ring)
    found.push({
      label: "coated",
      figure: over.height,
      mark: "height",
      box: { ...ring, x1: outside(plan, tier).x1 },
    });
  return found;
};

const cover: Lens = (plan, _, tier) => {
  const planned = plan.tiers[tier];
  const [sheet] = partsOf(plan, tier, "cover");
  const over = outside(plan, tier);
  if (!planned) return [];
  if (!planned.cover || !sheet) {
    return [{ label: "high", figure: planned.stack.height, mark: "height", box: over }];
  }
  const [coat] = [...partsOf(plan, tier, "final"), ...partsOf(plan, tier, "crumb")];
  const inner = coat ?? sheet;
  const rolled: Annotation[] = planned.cover.over
    ? [
        {
          label: "rolled",
          figure: planned.cover.over.side,
          mark: "point",
          box: wall(sheet, 0.75),
          field: "cover/thickness_mm",
          tier,
        },
      ]
    : [];
  return [
    ...rolled,
    {
      label: "over coat",
      figure: planned.cover.height_over_coat,
      mark: "height",
      box: { ...inner, x1: over.x1 },
    },
  ];
};

const LENSES: Record<LensName, Lens> = { brief, layers, coats, cover, mix: () => [], shop: () => [] };

/** Everything the lens writes beside the drawing, for the tier in hand (counted from 0). */
export function annotations(lens: LensName, plan: Plan, tiers: Tier[], tier: number): Annotation[] {
  return LENSES[lens](plan, tiers, Math.min(tier, plan.tiers.length - 1));
}
