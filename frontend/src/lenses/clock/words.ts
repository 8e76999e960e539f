/** What the places of a kitchen are called over their columns. */
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
