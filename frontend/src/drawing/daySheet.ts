/**
 * Where everything stands in the drawing of a day sheet. Time runs down the page, and stretches in which no hands are
 * needed are folded; places are columns, and whatever passes through them has a lane in each.
 */
import type { TimedStep } from "@/api/types";
import { minutesMeasure } from "@/base/amount";
import { clockWords } from "@/base/time";
import { spread } from "@/drawing/layout";

export type Place = TimedStep["place"];

/** A step as it is drawn. */
export interface Entry {
  id: string;
  name: string;
  look: TimedStep["look"];
  place: Place;
  start: string;
  end: string;
  spans: readonly (readonly [string, string])[];
  follows: readonly string[];
  /** Whether hands are on it; then its name stands in the column `words`, with the minutes it `took`. */
  works: boolean;
  words: string;
  took: string;
  /** The column it stands in, and its lane there; or all of them, where it is done to the `whole`. */
  column: string;
  lane: number;
  whole: boolean;
  state: TimedStep["state"];
  /** What stands on a wait that is high enough: the number of its tier, or the letter of its order. */
  mark: string;
}

export interface ColumnAsked {
  key: string;
  title: string;
  /** Whether the names of work stand in it. */
  worded: boolean;
  /** Whether it has one lane for all: a pair of hands does one thing at a time. */
  single?: boolean;
}

/** All that is drawn, and the hours by which something must be ready and is due. */
export interface Sheet {
  entries: readonly Entry[];
  columns: readonly ColumnAsked[];
  until: readonly { ready: string; due: string; words: string }[];
  /** Whether the way of each thing is drawn, or that of the step selected alone. */
  allWays: boolean;
  /** Whether a column has only the lanes of what stands in it. */
  ownLanes?: boolean;
}

export interface Fold {
  y: number;
  height: number;
  words: string;
}

/** The time axis: where a moment stands, px from the top. */
export interface Axis {
  y: (moment: Date) => number;
  /** The moment that stands so many px from the top. */
  at: (y: number) => Date;
  height: number;
  hours: { y: number; words: string }[];
  /** Where the heading of each day stands, in a band of its own. */
  days: { y: number; date: Date }[];
  folds: Fold[];
}

export interface Column {
  key: string;
  title: string;
  x: number;
  width: number;
  /** Where its lanes begin. */
  lanes: number;
  /** Where the names of work stand in it. */
  words: { x: number; width: number } | null;
}

/** One stay of something in a place. */
export interface Ribbon {
  id: string;
  entry: Entry;
  x: number;
  width: number;
  y: number;
  height: number;
}

/** The name and minutes of a piece of work, at its ribbon, in a column. */
export interface Label {
  ribbon: Ribbon;
  y: number;
  x: number;
  width: number;
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
  width: number;
}

export const PLACE_ORDER: readonly Place[] = ["oven", "rack", "bench", "fridge", "freezer", "car", "table"];
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
/** A column of one lane. */
const SINGLE = 30;
const MINUTE = 60_000;

interface Span {
  start: number;
  end: number;
}

/** A stretch of time, and when work begins in it that has words beside it, by the column of those. */
interface Stretch extends Span {
  labels: Record<string, number[]>;
}

const minutes = (iso: string): number => new Date(iso).getTime() / MINUTE;

/** When a step is done; work longer than a day has several spans. */
const spansOf = (entry: Entry): Span[] =>
  entry.spans.map(([start, end]) => ({ start: minutes(start), end: minutes(end) }));

/** Stretches of time with work in them, no farther apart than what is folded. */
function stretches(sheet: Sheet): Stretch[] {
  const all: Stretch[] = sheet.entries
    .filter((one) => one.works)
    .flatMap((one) =>
      spansOf(one).map((span, at) => ({ ...span, labels: at ? {} : { [one.words]: [span.start] } })),
    );
  for (const { ready, due } of sheet.until)
    all.push({ start: minutes(ready), end: minutes(due), labels: {} });
  all.sort((one, other) => one.start - other.start);
  const found: Stretch[] = [];
  for (const span of all) {
    const last = found.at(-1);
    if (!last || span.start - last.end >= FOLD_FROM_MIN) found.push({ ...span });
    else {
      last.end = Math.max(last.end, span.end);
      for (const [column, times] of Object.entries(span.labels))
        last.labels[column] = [...(last.labels[column] ?? []), ...times];
    }
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

/** Where the words of a stretch are wanted below its top, and where there is room for them, in each column. */
function placed(stretch: Stretch, perMinute: number): { wanted: number[]; found: number[] }[] {
  return Object.values(stretch.labels).map((times) => {
    const wanted = times.map((time) => (time - stretch.start) * perMinute);
    return { wanted, found: stacked(wanted) };
  });
}

/** How many px a minute takes, so that no words stand far below their work. */
function scaleOf(stretch: Stretch): number {
  let scale = LEAST;
  const far = (): boolean =>
    placed(stretch, scale).some(({ wanted, found }) =>
      found.some((y, at) => y - (wanted[at] ?? 0) > FARTHEST),
    );
  while (scale < MOST && far()) scale *= 1.1;
  return scale;
}

export function axisOf(sheet: Sheet): Axis {
  const found = stretches(sheet);
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
    const lowest = placed(stretch, perMinute).map((one) => one.found.at(-1) ?? 0);
    y = Math.max(bottom, ...lowest.map((one) => one + top + LINE));
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
  const at = (there: number): Date => {
    const after = points.findIndex((point) => point.y >= there);
    const right = points[after] ?? points.at(-1) ?? { time: 0, y: 0 };
    const left = points[after - 1] ?? right;
    const share = (there - left.y) / (right.y - left.y || 1);
    return new Date((left.time + (right.time - left.time) * Math.min(share, 1)) * MINUTE);
  };
  return { y: place, at, height: y + TOP, hours, days, folds };
}

/** The lanes of each column: those of all, or those of what stands in it alone. */
function lanesOf(sheet: Sheet): Map<string, number[]> {
  const sorted = (entries: readonly Entry[]): number[] =>
    [...new Set(entries.map((one) => one.lane))].sort((one, other) => one - other);
  const all = sorted(sheet.entries);
  return new Map(
    sheet.columns.map(({ key, single }) => [
      key,
      single ? [0] : sheet.ownLanes ? sorted(sheet.entries.filter((one) => one.column === key)) : all,
    ]),
  );
}

/** The drawing of a day sheet, as wide as there is room or wider, with a `margin` at its left for the hours. */
export function drawSheet(sheet: Sheet, width: number, margin: number): Drawn {
  const axis = axisOf(sheet);
  const lanes = lanesOf(sheet);
  const shared = sheet.columns.filter((one) => !one.single);
  const worded = Math.max(1, sheet.columns.filter((one) => one.worded).length);
  const room = width - margin - 12 - SINGLE * (sheet.columns.length - shared.length);
  const many = shared.reduce((sum, { key }) => sum + (lanes.get(key)?.length ?? 0), 0);
  // Much of the width is words; the lanes share the rest.
  const laned = room * (sheet.ownLanes ? 0.42 : 0.58) - 14 * shared.length;
  const lane = Math.min(22, Math.max(3, laned / many));
  const narrow = Math.min(HEADING, (room - NARROWEST * worded) / shared.length);
  // What is wider than the page can be scrolled where several pairs of hands have words.
  const least = worded > 1 ? Math.max(narrow, HEADING) : narrow;
  const ownOf = (one: ColumnAsked): number =>
    one.single ? SINGLE : Math.max(lane * (lanes.get(one.key)?.length ?? 0) + 14, least);
  const taken = shared.reduce((sum, one) => sum + ownOf(one), 0);
  const labelWidth = Math.max(NARROWEST, (room - taken) / worded);
  const columns: Column[] = [];
  let x = margin;
  for (const one of sheet.columns) {
    const own = ownOf(one);
    const words = one.worded ? { x: x + 7 + own + 2, width: labelWidth - 14 } : null;
    const wide = own + (one.worded ? labelWidth : 0);
    columns.push({ key: one.key, title: one.title, x, width: wide, lanes: x + 7, words });
    x += wide;
  }
  const single = new Set(sheet.columns.filter((one) => one.single).map((one) => one.key));
  const ribbons = sheet.entries.flatMap((entry) =>
    spansOf(entry).map((span) => {
      const column = columns.find((one) => one.key === entry.column) ?? columns[0];
      const mine = lanes.get(entry.column) ?? [];
      const alone = single.has(entry.column);
      const y = axis.y(new Date(span.start * MINUTE));
      const bottom = axis.y(new Date(span.end * MINUTE));
      const first = (column?.lanes ?? 0) + (entry.whole || alone ? 0 : mine.indexOf(entry.lane) * lane);
      return {
        id: entry.id,
        entry,
        x: first + 1,
        width: alone ? SINGLE - 10 : Math.max((entry.whole ? lane * mine.length : lane) - 3, 2),
        y,
        height: Math.max(bottom - y, 4),
      };
    }),
  );
  const ways = waysOf(sheet, ribbons);
  return { axis, columns, ribbons, labels: labelsOf(ribbons, columns), ways, width: Math.max(width, x + 12) };
}

/** The words of every piece of work, at its first ribbon, those of one column below each other. */
function labelsOf(ribbons: readonly Ribbon[], columns: readonly Column[]): Label[] {
  const work = ribbons.filter((one, at) => one.entry.works && ribbons[at - 1]?.id !== one.id);
  return columns.flatMap(({ key, words }) => {
    const mine = work.filter((one) => one.entry.words === key).sort((one, other) => one.y - other.y);
    const places = stacked(mine.map((ribbon) => ribbon.y));
    return words ? mine.map((ribbon, at) => ({ ...words, ribbon, y: places[at] ?? ribbon.y })) : [];
  });
}

/**
 * How everything goes from place to place: a line from each ribbon to the ones that follow it. What leaves a bowl, or
 * comes together in the whole cake, goes many ways: those are shown for the step selected alone. Where something waits
 * between two steps, the line goes by way of that.
 */
function waysOf(sheet: Sheet, ribbons: readonly Ribbon[]): Way[] {
  const first = new Map([...ribbons].reverse().map((one) => [one.id, one]));
  const last = new Map(ribbons.map((one) => [one.id, one]));
  const entries = new Map(sheet.entries.map((one) => [one.id, one]));
  return sheet.entries.flatMap(({ id: to, follows }) =>
    follows.flatMap((from) => {
      if (follows.some((other) => entries.get(other)?.follows.includes(from))) return [];
      const [above, below] = [last.get(from), first.get(to)];
      if (!above || !below || (above.x === below.x && above.width === below.width)) return [];
      const [x, y] = [above.x + above.width / 2, above.y + above.height];
      const [toX, toY] = [below.x + below.width / 2, below.y];
      const bend = Math.min(24, Math.max(6, Math.abs(toY - y) / 2));
      const d = `M${x} ${y}C${x} ${y + bend} ${toX} ${toY - bend} ${toX} ${toY}`;
      const same = above.entry.lane === below.entry.lane && above.entry.whole === below.entry.whole;
      return [{ from, to, d, always: sheet.allWays && same }];
    }),
  );
}
