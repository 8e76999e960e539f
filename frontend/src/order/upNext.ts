/** What comes up in a schedule: the work of now or next, when everybody goes home, and what next leaves the cold. */
import type { TimedStep } from "@/api/types";

type Hours = Pick<TimedStep, "start" | "end" | "spans" | "place" | "state">;

/** A step of a schedule, with whatever else is known of it. */
export interface Scheduled {
  id: string;
  step: Hours;
}

export interface UpNext<T> {
  first: T | undefined;
  /** Whether hands are on it now. */
  underWay: boolean;
  /** When the last work of its day is done. */
  home: string | undefined;
}

const past = (iso: string, now: Date): boolean => new Date(iso) <= now;

/** What comes up of some work, which stands in the order of its hours. */
export function upNext<T extends Scheduled>(work: readonly T[], now: Date): UpNext<T> {
  const left = work.filter(({ step }) => step.state !== "done");
  const underWay =
    left.find(({ step }) => step.state === "begun") ??
    left.find(({ step }) => past(step.start, now) && !past(step.end, now));
  const first = underWay ?? left.find(({ step }) => !past(step.start, now));
  const day = first?.step.start.slice(0, 10);
  const home = work
    .flatMap(({ step }) => step.spans.map(([, end]) => end))
    .filter((end) => end.slice(0, 10) === day)
    .sort()
    .at(-1);
  return { first, underWay: underWay !== undefined, home };
}

/** What leaves the fridge or the freezer next. */
export const nextOutOfCold = <T extends Scheduled>(steps: readonly T[], now: Date): T | undefined =>
  steps
    .filter(({ step }) => step.place === "fridge" || step.place === "freezer")
    .filter(({ step }) => step.state !== "done" && !past(step.end, now))
    .sort((one, other) => one.step.end.localeCompare(other.step.end))[0];
