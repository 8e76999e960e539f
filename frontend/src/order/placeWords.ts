/** What the places of a kitchen are called: over their columns, and where something stands in them. */
import type { TimedStep } from "@/api/types";

/** Where a step is done; in the cold, on which shelf, counted from the top. */
export function placeWords(step: Pick<TimedStep, "place" | "shelves">): string {
  const part = step.place === "freezer" ? "drawer" : "shelf";
  const last = step.shelves.at(-1);
  if (last === undefined) return PLACES[step.place];
  const out = step.shelves.slice(0, -1);
  const above =
    out.length > 1 ? `${part === "shelf" ? "shelves" : "drawers"} ${out.join(" and ")}` : `${part} ${out[0]}`;
  return `${PLACES[step.place]}, ${part} ${last}${out.length ? `, with ${above} taken out` : ""}`;
}

export const PLACES: Record<TimedStep["place"], string> = {
  oven: "Oven",
  rack: "Rack",
  bench: "Bench",
  fridge: "Fridge",
  freezer: "Freezer",
  car: "Car",
  table: "There",
};
