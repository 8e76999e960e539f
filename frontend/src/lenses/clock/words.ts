/** How the clock says things. */
import type { TimedStep } from "@/api/types";
import { clockWords } from "@/base/time";

export const PLACES: Record<TimedStep["place"], string> = {
  oven: "Oven",
  rack: "Rack",
  bench: "Bench",
  fridge: "Fridge",
  freezer: "Freezer",
  car: "Car",
  table: "There",
};

const WEEKDAY = new Intl.DateTimeFormat(undefined, { weekday: "short" });

/** An hour, with its day where that is not today: “Thu 11:42”. */
export function hourWords(iso: string, now: Date): string {
  const date = new Date(iso);
  const words = clockWords(date);
  return date.toDateString() === now.toDateString() ? words : `${WEEKDAY.format(date)} ${words}`;
}

/** A step and the tier it is done to: “Crumb coat, bottom”. */
export const named = (step: TimedStep): string =>
  step.tier === null ? step.name : `${step.name}, ${step.of}`;
