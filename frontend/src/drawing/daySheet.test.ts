import { describe, expect, it } from "vitest";
import { drawSheet, type Entry, type Sheet } from "./daySheet";

const at = (day: number, hour: number, minute: number): string =>
  `2026-12-0${day}T${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}:00`;

function entry(
  id: string,
  place: Entry["place"],
  start: string,
  end: string,
  more: Partial<Entry> = {},
): Entry {
  const works = place === "bench";
  return {
    id,
    name: "Work",
    look: "soft",
    place,
    start,
    end,
    spans: [[start, end]],
    follows: [],
    works,
    words: "bench",
    took: works ? "10 min" : "",
    column: place,
    lane: 1,
    whole: false,
    state: "",
    mark: "1",
    ...more,
  };
}

const COLUMNS = ["bench", "fridge", "freezer"].map((key) => ({ key, title: key, worded: key === "bench" }));

/** A day of many short steps, a night, and a morning. */
function sheet(...more: Entry[]): Sheet {
  const entries = Array.from({ length: 20 }, (_, number) => {
    const from = at(4, 9 + Math.floor(number / 6), (number % 6) * 10);
    const to = at(4, 9 + Math.floor((number + 1) / 6), ((number + 1) % 6) * 10);
    return entry(`short_${number}`, "bench", from, to, { lane: 1 + (number % 3) });
  });
  entries.push(entry("chill", "fridge", at(4, 12, 20), at(5, 8, 0), { follows: ["short_18"] }));
  const whole = { lane: 0, whole: true, follows: ["chill"] };
  entries.push(entry("cake_box", "bench", at(5, 8, 0), at(5, 8, 30), whole), ...more);
  const until = [{ ready: at(5, 8, 30), due: at(5, 9, 0), words: "due" }];
  return { entries, columns: COLUMNS, until, allWays: true };
}

describe("the drawing of a day sheet", () => {
  const drawn = drawSheet(sheet(), 816, 62);

  it("runs down: later is lower, and a night is folded", () => {
    const axis = drawn.axis;
    let before = -1;
    for (let hour = 9; hour < 33; hour += 1) {
      const y = axis.y(new Date(2026, 11, 4, hour));
      expect(y).toBeGreaterThanOrEqual(before);
      before = y;
    }
    expect(axis.folds).toHaveLength(1);
    expect(axis.folds[0]?.words).toBe("night, 19 h 40 min");
    expect(axis.days).toHaveLength(2);
  });

  it("lays no words over others, and none far from their work", () => {
    const labels = drawn.labels;
    expect(labels).toHaveLength(21);
    for (const [index, label] of labels.entries()) {
      const next = labels[index + 1];
      if (next) expect(next.y - label.y).toBeGreaterThanOrEqual(25);
      expect(label.y - label.ribbon.y).toBeLessThan(60);
    }
    expect(labels.at(-1)?.y).toBeLessThan(drawn.axis.height);
  });

  it("keeps words out of folds and days out of each other", () => {
    for (const fold of drawn.axis.folds)
      for (const label of drawn.labels)
        expect(label.y + 25 <= fold.y + 1 || label.y >= fold.y + fold.height - 1).toBe(true);
  });

  it("gives every tier a lane in every place, and the whole cake all of them", () => {
    const bench = drawn.columns.find((one) => one.key === "bench");
    for (const ribbon of drawn.ribbons) {
      const column = drawn.columns.find((one) => one.key === ribbon.entry.column);
      expect(ribbon.x).toBeGreaterThanOrEqual(column?.x ?? Infinity);
      expect(ribbon.x + ribbon.width).toBeLessThanOrEqual((column?.x ?? 0) + (column?.width ?? 0));
    }
    const whole = drawn.ribbons.find((one) => one.id === "cake_box");
    const one = drawn.ribbons.find((ribbon) => ribbon.id === "short_0");
    expect(whole?.width).toBeGreaterThan(2 * (one?.width ?? 0));
    for (const label of drawn.labels)
      expect(label.x + label.width).toBeLessThanOrEqual((bench?.x ?? 0) + (bench?.width ?? 0));
  });

  it("goes to the next step by way of the fridge it waits in", () => {
    const kept = sheet(
      entry("coat", "bench", at(4, 14, 0), at(4, 14, 20)),
      entry("hard", "freezer", at(4, 14, 20), at(4, 14, 30), { follows: ["coat"] }),
      entry("hold", "fridge", at(4, 14, 30), at(4, 15, 0), { follows: ["hard"] }),
      entry("next", "bench", at(4, 15, 0), at(4, 15, 10), { follows: ["hard", "hold"] }),
    );
    const ways = drawSheet(kept, 900, 62).ways.filter(({ to }) => ["hard", "hold", "next"].includes(to));
    expect(ways.map(({ from, to }) => `${from} to ${to}`)).toEqual([
      "coat to hard",
      "hard to hold",
      "hold to next",
    ]);
  });

  it.each([500, 640, 816, 1400])("fits in %d px, with thirty tiers too", (width) => {
    const more = Array.from({ length: 27 }, (_, tier) =>
      entry(`more_${tier}`, "fridge", at(4, 10, 0), at(4, 11, 0), { lane: 4 + tier }),
    );
    const two = { ...sheet(...more), columns: COLUMNS.slice(0, 2) };
    const last = drawSheet(two, width, 62).columns.at(-1);
    expect((last?.x ?? 0) + (last?.width ?? 0)).toBeLessThanOrEqual(width);
  });

  it("has the words of each pair of hands in a column of their own, which may be wider than the page", () => {
    const hands = ["one", "other", "third"];
    const entries = hands.flatMap((words, number) =>
      [0, 1].map((at_) =>
        entry(`${words} ${at_}`, "bench", at(4, 9, 0), at(4, 9, 10), { words, column: words, lane: number }),
      ),
    );
    const columns = hands.map((key) => ({ key, title: key, worded: true }));
    const until = [{ ready: at(4, 10, 0), due: at(4, 10, 0), words: "due" }];
    const {
      labels,
      width,
      columns: drawnColumns,
    } = drawSheet({ entries, columns, until, allWays: false }, 300, 62);
    expect(labels).toHaveLength(6);
    for (const [index, label] of labels.entries()) {
      const before = labels[index - 1];
      if (before && before.ribbon.entry.words === label.ribbon.entry.words)
        expect(label.y - before.y).toBeGreaterThanOrEqual(25);
      else if (before) expect(label.x).toBeGreaterThan(before.x + before.width);
    }
    const last = drawnColumns.at(-1);
    expect((last?.x ?? 0) + (last?.width ?? 0)).toBeLessThanOrEqual(width);
  });

  it("finds the moment that stands at a height, the other way round", () => {
    const { axis } = drawSheet(sheet(), 900, 60);
    for (const moment of [at(4, 9, 0), at(4, 10, 20), at(4, 12, 0), at(5, 8, 0)].map((iso) => new Date(iso)))
      expect(Math.abs(axis.at(axis.y(moment)).getTime() - moment.getTime())).toBeLessThan(60_000);
    expect(axis.at(-500).getTime()).toBe(new Date(at(4, 9, 0)).getTime());
    expect(axis.at(axis.height + 500).getTime()).toBe(axis.at(axis.height).getTime());
  });
});
