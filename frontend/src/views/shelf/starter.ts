/** What a new order starts from: one tier, everything else as this kitchen usually does it. Loaded on first use. */
import type { Document } from "@/api/types";
import type { LengthUnit } from "@/base/units";
import { usePantry } from "@/kitchen/pantry";
import { usePractice } from "@/kitchen/practice";
import { titled } from "@/order/titled";

const TINS: Record<LengthUnit, { tin: number; layer: number }> = {
  in: { tin: 203.2, layer: 31.75 },
  cm: { tin: 200, layer: 30 },
  mm: { tin: 200, layer: 30 },
};

function oneTier(unit: LengthUnit): Document["design"] {
  const { tin, layer } = TINS[unit];
  const tier = { tin_diameter_mm: tin, layers: { count: 3, height_mm: layer } };
  return { tiers: [tier] } as unknown as Document["design"];
}

/** The least a design file says. It is called by its tins until it is named; the server fills in what is left out. */
export function bare(unit: LengthUnit, design = oneTier(unit)): Document {
  return { format: "amber-spread/5", title: titled(design, unit), design } as unknown as Document;
}

/** The same with the kitchen's own media and its usual. */
export async function starter(unit: LengthUnit, design?: Document["design"]): Promise<Document> {
  const pantry = usePantry();
  const usual = usePractice();
  await Promise.all([pantry.larder || pantry.open(), usual.shown || usual.open()]);
  const media = pantry.pantry?.media ?? [];
  return { ...bare(unit, design), media, ...(usual.unsaved && { practice: usual.unsaved }) };
}
