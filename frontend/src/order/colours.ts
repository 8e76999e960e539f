/** Every place where a tier asks for a colour, once. */
import type { Document, Tier } from "@/api/types";

type Coloured = { colour?: string | null };

/** Every place where a tier asks for a colour, to read and to change. */
export function colourFields(
  tier: Tier,
): { get: () => string | null | undefined; set: (name: string) => void }[] {
  const { filling, crumb, final, cover, on_top, borders, regions, layers, build } = tier;
  const stripes =
    cover.kind === "panel" ? cover.stripes : cover.kind === "patches" ? cover.patch_colours : [];
  const steps = [
    filling,
    crumb,
    final,
    cover,
    ...(on_top ?? []),
    layers.syrup,
    ...(borders ?? []),
    ...(regions ?? []),
    ...(stripes ?? []),
    ...("openings" in build ? (build.openings ?? []) : []),
  ];
  const fields = steps
    .filter((step) => step && ("colour" in step || "medium" in step))
    .map((step) => ({
      get: () => (step as Coloured).colour,
      set: (name: string) => {
        (step as Coloured).colour = name;
      },
    }));
  if (filling.kind === "soft") {
    fields.push({ get: () => filling.dam_colour, set: (name) => void (filling.dam_colour = name) });
  }
  return fields;
}

/** Give every place that asks for a colour by its old name the new one. */
export function renameColour(design: Document["design"], before: string, name: string): void {
  for (const field of design.tiers.flatMap(colourFields)) {
    if (field.get() === before) field.set(name);
  }
  for (const part of design.colours.flatMap((one) => one.parts)) {
    if (part.colour === before) part.colour = name;
  }
}
