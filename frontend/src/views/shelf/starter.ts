/** What a new order starts from: one tier, everything else as this kitchen usually does it. */
import type { Document, Pantry, Practice } from "@/api/types";
import type { LengthUnit } from "@/base/units";
import { titled } from "@/order/titled";

const TINS: Record<LengthUnit, { tin: number; layer: number }> = {
  in: { tin: 203.2, layer: 31.75 },
  cm: { tin: 200, layer: 30 },
  mm: { tin: 200, layer: 30 },
};

/** The least a design file says, with the kitchen's own media; the server fills in all that is left out. */
export function starter(
  unit: LengthUnit,
  media: Pantry["media"] = [],
  practice: Practice | null = null,
): Document {
  const { tin, layer } = TINS[unit];
  const design = { tiers: [{ tin_diameter_mm: tin, layers: { count: 3, height_mm: layer } }] };
  return {
    format: "amber-spread/5",
    title: titled(design as unknown as Document["design"], unit),
    design,
    media,
    ...(practice && { practice }),
  } as unknown as Document;
}
