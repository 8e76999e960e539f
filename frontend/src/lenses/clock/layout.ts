/**
 * Where everything stands in the drawing of a clock. Time runs down the page, and stretches in which no hands are
 * needed are folded; places are columns, and every tier has a lane in each.
 */
import type { Clock, TimedStep } from "@/api/types";
import { minutesMeasure } from "@/base/amount";
import { clockWords } from "@/base/time";
import { spread } from "@/drawing/layout";

export type Place = TimedStep["place"];

export interface Fold {
  y: number;
  height: number;
  words: string;
}

/** The time axis: where a moment stands, px from the top. */
export interface Axis {
  y: (moment: Date) => number;
  height: number;
  hours: { y: number; words: string }[];
  /** Where the heading of each day stands, in a band of its own. */
  days: { y: number; date: Date }[];
  folds: Fold[];
}

export interface Column {
  place: Place;
  x: number;
  width: number;
  /** Where its lanes begin. */
  lanes: number;
}

/** One stay of a tier, a bowl or the whole cake in a place. */
export interface Ribbon {
  id: string;
  step: TimedStep;
  x: number;
  width: number;
  y: number;
  height: number;
}

/** The name and minutes of a piece of work, at its ribbon. */
export interface Label {
  ribbon: Ribbon;
  y: number;
}

export interface Way {
  from: string;
  to: string;
  d: string;
  always: boolean;
}

export interface Drawn {
  axis: Axis;
  columns: Column[];
  ribbons: Ribbon[];
  labels: Label[];
  ways: Way[];
  label: { x: number; width: number };
}

const ORDER: readonly Place[] = ["oven", "rack", "bench", "fridge", "freezer", "car", "table"];
const LINE = 25;
const FOLD_FROM_MIN = 75;
const FOLD_HEIGHT = 46;
const DAY_HEIGHT = 38;
const LEAST = 1.5;
const MOST = 4.5;
const FARTHEST = 2.2 * LINE;
const TOP = 6;
/** The name of a place over its column takes so much room, and words beside the bench as much at least. */
const HEADING = 58;
const NARROWEST = 150;
const MINUTE = 60_000;

interface Span {
  start: number;
  end: number;
}

/** A stretch of time, and when work begins in it that has words beside it. */
interface Stretch extends Span {
  labels: number[];
}

const minutes = (iso: string): number => new Date(iso).getTime() / MINUTE;

/** When a step is done; work longer than a day has several spans. */
const spans = (step: TimedStep): Span[] =>
  step.spans.map(([start, end]) => ({ start: minutes(start), end: minutes(end) }));

/** Stretches of time with work in them, no farther apart than what is folded. */
function stretches(clock: Clock, work: readonly TimedStep[]): Stretch[] {
  const all: Stretch[] = work.flatMap((step) =>
    spans(step).map((span, at) => ({ ...span, labels: at ? [] : [span.start] })),
  );
  all.push({ start: minutes(clock.ready), end: minutes(clock.due), labels: [] });
  all.sort((one, other) => one.start - other.start);
  const found: Stretch[] = [];
  for (const span of all) {
    const last = found.at(-1);
    if (last && span.start - last.end < FOLD_FROM_MIN) {
      last.end = Math.max(last.end, span.end);
      last.labels.push(...span.labels);
    } else found.push({ ...span });
  }
  return found;
}

/** How long a fold is in all: “night, 14 h 29 min”. */
function foldWords(before: Stretch, after: Stretch): string {
  const [from, to] = [new Date(before.end * MINUTE), new Date(after.start * MINUTE)];
  const { number, unit } = minutesMeasure(after.start - before.end);
  return `${from.getDate() === to.getDate() ? "hands free" : "night"}, ${number} ${unit}`;
}

/** Where words stand below each other: each where it is wanted, or as near below that as there is room. */
const stacked = (wanted: readonly number[]): number[] => spread(wanted, LINE, 0, Infinity);

/** Where the words of a stretch are wanted below its top, and where there is room for them. */
function placed(stretch: Stretch, perMinute: number): { wanted: number[]; found: number[] } {
  const wanted = stretch.labels.map((time) => (time - stretch.start) * perMinute);
  return { wanted, found: stacked(wanted) };
}

/** How many px a minute takes, so that no words stand far below their work. */
function scaleOf(stretch: Stretch): number {
  let scale = LEAST;
  const far = (): boolean => {
    const { wanted, found } = placed(stretch, scale);
    return found.some((y, at) => y - (wanted[at] ?? 0) > FARTHEST);
  };
  while (scale < MOST && far()) scale *= 1.1;
  return scale;
}

export function axisOf(clock: Clock, work: readonly TimedStep[]): Axis {
  const found = stretches(clock, work);
  const points: { time: number; y: number }[] = [];
  const folds: Fold[] = [];
  const hours: Axis["hours"] = [];
  const days: Axis["days"] = [];
  let y = TOP;
  let day = "";
  for (const [at, stretch] of found.entries()) {
    const before = found[at - 1];
    if (before) {
      folds.push({ y, height: FOLD_HEIGHT, words: foldWords(before, stretch) });
      y += FOLD_HEIGHT;
    }
    const begins = new Date(stretch.start * MINUTE);
    if (begins.toDateString() !== day) {
      day = begins.toDateString();
      days.push({ y, date: begins });
      y += DAY_HEIGHT;
    }
    const long = Math.max(stretch.end - stretch.start, 5);
    const perMinute = scaleOf(stretch);
    const top = y;
    const bottom = top + long * perMinute;
    points.push({ time: stretch.start, y: top }, { time: stretch.start + long, y: bottom });
    // Words that do not fit beside their work stand below it, and what comes next below those.
    y = Math.max(bottom, (placed(stretch, perMinute).found.at(-1) ?? 0) + top + LINE);
    const step = perMinute * 60 > 200 ? 30 : 60;
    hours.push({ y: top, words: clockWords(begins) });
    for (let time = Math.ceil(stretch.start / step) * step; time < stretch.start + long; time += step) {
      const there = top + (time - stretch.start) * perMinute;
      if (there - top > 20 && bottom - there > 8)
        hours.push({ y: there, words: clockWords(new Date(time * MINUTE)) });
    }
  }
  const place = (moment: Date): number => {
    const time = moment.getTime() / MINUTE;
    const after = points.findIndex((point) => point.time >= time);
    const right = points[after];
    const left = points[after - 1];
    if (!right) return points.at(-1)?.y ?? TOP;
    if (!left) return right.y;
    return left.y + ((right.y - left.y) * (time - left.time)) / (right.time - left.time || 1);
  };
  return { y: place, height: y + TOP, hours, days, folds };
}

/** The lane of what a step is done to: a tier's own; bowls and the whole cake share one. */
function laneOf(step: TimedStep): number {
  return step.tier ?? 0;
}

/** The drawing of a clock, so wide, with a `margin` at its left for the hours. */
export function drawClock(clock: Clock, width: number, margin: number): Drawn {
  const entries = Object.entries(clock.steps);
  const work = entries.filter(([, step]) => step.hands);
  const axis = axisOf(
    clock,
    work.map(([, step]) => step),
  );
  const tiers = [...new Set(entries.map(([, step]) => laneOf(step)))].sort((one, other) => one - other);
  const places = ORDER.filter((place) => entries.some(([, step]) => step.place === place));
  const room = width - margin - 12;
  // Four in ten of the width are words; the lanes share the rest.
  const lane = Math.min(22, Math.max(3, (room * 0.58 - 14 * places.length) / (tiers.length * places.length)));
  const own = Math.max(lane * tiers.length + 14, Math.min(HEADING, (room - NARROWEST) / places.length));
  const labelWidth = Math.max(NARROWEST, room - own * places.length);
  const columns: Column[] = [];
  let x = margin;
  for (const place of places) {
    const wide = place === "bench" ? own + labelWidth : own;
    columns.push({ place, x, width: wide, lanes: x + 7 });
    x += wide;
  }
  const bench = columns.find((one) => one.place === "bench");
  const label = { x: (bench?.lanes ?? margin) + own + 2, width: labelWidth - 14 };
  const ribbons = entries.flatMap(([id, step]) =>
    spans(step).map((span) => {
      const column = columns.find((one) => one.place === step.place) ?? columns[0];
      const whole = step.on === "cake";
      const y = axis.y(new Date(span.start * MINUTE));
      const bottom = axis.y(new Date(span.end * MINUTE));
      const first = (column?.lanes ?? 0) + (whole ? 0 : tiers.indexOf(laneOf(step)) * lane);
      return {
        id,
        step,
        x: first + 1,
        width: (whole ? lane * tiers.length : lane) - 3,
        y,
        height: Math.max(bottom - y, 4),
      };
    }),
  );
  return { axis, columns, ribbons, labels: labelsOf(ribbons), ways: waysOf(entries, ribbons), label };
}

/** The words of every piece of work, at its first ribbon. */
function labelsOf(ribbons: readonly Ribbon[]): Label[] {
  const work = ribbons.filter((one, at) => one.step.hands && ribbons[at - 1]?.id !== one.id);
  const places = stacked(work.map((ribbon) => ribbon.y));
  return work.map((ribbon, at) => ({ ribbon, y: places[at] ?? ribbon.y }));
}

/**
 * How everything goes from place to place: a line from each ribbon to the ones that follow it. What leaves a bowl, or
 * comes together in the whole cake, goes many ways: those are shown for the step selected alone. Where something waits
 * between two steps, the line goes by way of that.
 */
function waysOf(entries: readonly [string, TimedStep][], ribbons: readonly Ribbon[]): Way[] {
  const first = new Map([...ribbons].reverse().map((one) => [one.id, one]));
  const last = new Map(ribbons.map((one) => [one.id, one]));
  const steps = new Map(entries);
  return entries.flatMap(([to, step]) =>
    step.follows.flatMap((from) => {
      if (step.follows.some((other) => steps.get(other)?.follows.includes(from))) return [];
      const [above, below] = [last.get(from), first.get(to)];
      if (!above || !below || (above.x === below.x && above.width === below.width)) return [];
      const [x, y] = [above.x + above.width / 2, above.y + above.height];
      const [toX, toY] = [below.x + below.width / 2, below.y];
      const bend = Math.min(24, Math.max(6, Math.abs(toY - y) / 2));
      const d = `M${x} ${y}C${x} ${y + bend} ${toX} ${toY - bend} ${toX} ${toY}`;
      return [
        { from, to, d, always: laneOf(above.step) === laneOf(below.step) && above.step.on === below.step.on },
      ];
    }),
  );
}
