/**
 * Where everything stands in the drawing of a clock. Time runs down the page, and stretches in which no hands are
 * needed are folded; places are columns, and every tier has a lane in each.
 */
import type { Clock, TimedStep } from "@/api/types";

export type Place = TimedStep["place"];
export type Look = "warm" | "soft" | "cold" | "firm" | "covered";

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
  look: Look;
  work: boolean;
  mark: string;
}

export interface Label {
  id: string;
  step: TimedStep;
  y: number;
  /** Where the ribbon it belongs to begins. */
  at: number;
  from: number;
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
  height: number;
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
const MARGIN = 62;
/** The name of a place over its column takes so much room, and words beside the bench as much at least. */
const HEADING = 66;
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

/** When hands are needed in a step; work longer than a day has several spans. */
function spans(step: TimedStep): Span[] {
  const found = step.works.length ? step.works : [[step.start, step.end]];
  return found.map(([start = step.start, end = step.end]) => ({ start: minutes(start), end: minutes(end) }));
}

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

const clock24 = (date: Date): string => `${date.getHours()}:${String(date.getMinutes()).padStart(2, "0")}`;

function durationWords(min: number): string {
  const whole = Math.round(min);
  const rest = whole % 60 ? ` ${whole % 60} min` : "";
  return whole < 120 ? `${whole} min` : `${Math.floor(whole / 60)} h${rest}`;
}

/** Where the words of a stretch stand below its top: each at its work, or as near below it as there is room. */
function placed(stretch: Stretch, perMinute: number): number[] {
  let free = 0;
  return stretch.labels.map((time) => {
    const y = Math.max((time - stretch.start) * perMinute, free);
    free = y + LINE;
    return y;
  });
}

/** How many px a minute takes, so that no words stand far below their work. */
function scaleOf(stretch: Stretch, long: number): number {
  let scale = LEAST;
  const far = (): boolean =>
    placed(stretch, scale).some(
      (y, at) => y - ((stretch.labels[at] ?? 0) - stretch.start) * scale > FARTHEST,
    );
  while (scale < MOST && far()) scale *= 1.1;
  return Math.min(scale, Math.max(MOST, 60 / long));
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
      const free = stretch.start - before.end;
      const night = new Date(before.end * MINUTE).getDate() !== new Date(stretch.start * MINUTE).getDate();
      const words = `${night ? "night" : "hands free"}, ${durationWords(free)}`;
      folds.push({ y, height: FOLD_HEIGHT, words });
      y += FOLD_HEIGHT;
    }
    const begins = new Date(stretch.start * MINUTE);
    if (begins.toDateString() !== day) {
      day = begins.toDateString();
      days.push({ y, date: begins });
      y += DAY_HEIGHT;
    }
    const long = Math.max(stretch.end - stretch.start, 5);
    const perMinute = scaleOf(stretch, long);
    const top = y;
    const bottom = top + long * perMinute;
    points.push({ time: stretch.start, y: top }, { time: stretch.start + long, y: bottom });
    // Words that do not fit beside their work stand below it, and what comes next below those.
    y = Math.max(bottom, (placed(stretch, perMinute).at(-1) ?? 0) + top + LINE);
    const step = perMinute * 60 > 200 ? 30 : 60;
    hours.push({ y: top, words: clock24(begins) });
    for (let time = Math.ceil(stretch.start / step) * step; time < stretch.start + long; time += step) {
      const there = top + (time - stretch.start) * perMinute;
      if (there - top > 20 && bottom - there > 8)
        hours.push({ y: there, words: clock24(new Date(time * MINUTE)) });
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

/** How a tier looks in a step, by what was done to it before. */
function looks(steps: readonly [string, TimedStep][]): Map<string, Look> {
  const done = new Map<number, Set<string>>();
  const found = new Map<string, Look>();
  for (const [id, step] of steps) {
    const seen = done.get(laneOf(step)) ?? new Set();
    done.set(laneOf(step), seen);
    if (step.leaves) seen.add(step.leaves);
    const whole = id.startsWith("cake_");
    if (step.place === "oven" || step.place === "rack") found.set(id, "warm");
    else if (seen.has("covered") || whole) found.set(id, "covered");
    else if (step.hands) found.set(id, "soft");
    else if (step.place === "fridge" || step.place === "freezer")
      found.set(id, seen.has("coat soft") ? "firm" : "cold");
    else found.set(id, "soft");
  }
  return found;
}

export function drawClock(clock: Clock, width: number): Drawn {
  const entries = Object.entries(clock.steps);
  const work = entries.filter(([, step]) => step.hands);
  const axis = axisOf(
    clock,
    work.map(([, step]) => step),
  );
  const tiers = [...new Set(entries.map(([, step]) => laneOf(step)))].sort((one, other) => one - other);
  const places = ORDER.filter((place) => entries.some(([, step]) => step.place === place));
  const room = width - MARGIN - 12;
  // Four in ten of the width are words; the lanes share the rest.
  const lane = Math.min(22, Math.max(3, (room * 0.58 - 14 * places.length) / (tiers.length * places.length)));
  const own = Math.max(lane * tiers.length + 14, Math.min(HEADING, (room - NARROWEST) / places.length));
  const labelWidth = Math.max(NARROWEST, room - own * places.length);
  const columns: Column[] = [];
  let x = MARGIN;
  for (const place of places) {
    const wide = place === "bench" ? own + labelWidth : own;
    columns.push({ place, x, width: wide, lanes: x + 7 });
    x += wide;
  }
  const bench = columns.find((one) => one.place === "bench");
  const label = { x: (bench?.lanes ?? MARGIN) + own + 2, width: labelWidth - 14 };
  const look = looks(entries);
  const ribbons = entries.flatMap(([id, step]) =>
    spans(step).map((span) => {
      const column = columns.find((one) => one.place === step.place) ?? columns[0];
      const whole = id.startsWith("cake_");
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
        look: look.get(id) ?? "soft",
        work: Boolean(step.hands),
        mark: step.tier === null ? "" : String(step.tier),
      };
    }),
  );
  return {
    axis,
    columns,
    ribbons,
    labels: labelsOf(work, ribbons),
    ways: waysOf(entries, ribbons),
    label,
    height: axis.height,
  };
}

/** The words of every piece of work, each at its ribbon or as near below it as there is room. */
function labelsOf(work: readonly [string, TimedStep][], ribbons: readonly Ribbon[]): Label[] {
  const found: Label[] = [];
  let free = 0;
  for (const [id, step] of work) {
    const ribbon = ribbons.find((one) => one.id === id);
    if (!ribbon) continue;
    const y = Math.max(ribbon.y, free);
    free = y + LINE;
    found.push({ id, step, y, at: ribbon.y, from: ribbon.x + ribbon.width });
  }
  return found;
}

/**
 * How everything goes from place to place: a line from each ribbon to the ones that follow it. What leaves a bowl, or
 * comes together in the whole cake, goes many ways: those are shown for the step selected alone.
 */
function waysOf(entries: readonly [string, TimedStep][], ribbons: readonly Ribbon[]): Way[] {
  const first = new Map([...ribbons].reverse().map((one) => [one.id, one]));
  const last = new Map(ribbons.map((one) => [one.id, one]));
  return entries.flatMap(([to, step]) =>
    step.follows.flatMap((from) => {
      const [above, below] = [last.get(from), first.get(to)];
      if (!above || !below || (above.x === below.x && above.width === below.width)) return [];
      const [x, y] = [above.x + above.width / 2, above.y + above.height];
      const [toX, toY] = [below.x + below.width / 2, below.y];
      const bend = Math.min(24, Math.max(6, Math.abs(toY - y) / 2));
      const d = `M${x} ${y}C${x} ${y + bend} ${toX} ${toY - bend} ${toX} ${toY}`;
      return [{ from, to, d, always: above.step.of === below.step.of }];
    }),
  );
}
