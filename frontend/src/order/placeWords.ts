/** What the places of a kitchen are called: over their columns, and where something stands in them. */
import type { TimedStep } from "@/api/types";

export const PLACES: Record<TimedStep["place"], string> = {
  oven: "Oven",
  rack: "Rack",
  bench: "Bench",
  fridge: "Fridge",
  freezer: "Freezer",
  car: "Car",
  table: "There",
};

/** Where a step is done; in the cold, on which shelf. */
export const placeWords = (step: Pick<TimedStep, "place" | "stands">): string =>
  `${PLACES[step.place]}${step.stands && `, ${step.stands}`}`;
