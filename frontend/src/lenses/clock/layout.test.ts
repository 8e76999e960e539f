import { describe, expect, it } from "vitest";
import type { Clock, TimedStep } from "@/api/types";
import { axisOf, drawClock } from "./layout";

const at = (day: number, hour: number, minute: number): string =>
  `2026-12-0${day}T${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}:00`;

function step(
  place: TimedStep["place"],
  start: string,
  end: string,
  more: Partial<TimedStep> = {},
): TimedStep {
  const figure = { value: 10, unit: "min", rule: "total", rounding: "up", given: {}, id: "x" } as never;
  const waits = place !== "bench";
  return {
    kind: "work",
    name: "Work",
    on: "tier",
    of: "bottom",
    look: "soft",
    tier: 1,
    place,
    said: { text: "", values: {}, part: "", caution: false },
    start,
    end,
    spans: [[start, end]],
    hand: waits ? null : 1,
    whose: "",
    shelves: [],
    hands: waits ? null : figure,
    wait: waits ? figure : null,
    sign: "",
    firming: null,
    slack: figure,
    follows: [],
    tasks: [],
    ...more,
  };
}

/** A day of many short steps, a night, and a morning. */
function clock(): Clock {
  const steps: Record<string, TimedStep> = {};
  for (let number = 0; number < 20; number += 1) {
    const from = at(4, 9 + Math.floor(number / 6), (number % 6) * 10);
    const to = at(4, 9 + Math.floor((number + 1) / 6), ((number + 1) % 6) * 10);
    steps[`short_${number}`] = step("bench", from, to, { tier: 1 + (number % 3), of: `tier ${number % 3}` });
  }
  steps["chill"] = step("fridge", at(4, 12, 20), at(5, 8, 0), { follows: ["short_18"] });
  steps["cake_box"] = step("bench", at(5, 8, 0), at(5, 8, 30), {
    tier: null,
    on: "cake",
    of: "the whole cake",
    follows: ["chill"],
  });
  return { due: at(5, 9, 0), ready: at(5, 8, 30), begins: at(4, 9, 0), steps } as unknown as Clock;
}

describe("the drawing of a clock", () => {
  const drawn = drawClock(clock(), 816, 62);

  it("runs down: later is lower, and a night is folded", () => {
    const axis = axisOf(
      clock(),
      Object.values(clock().steps).filter((one) => one.hands),
    );
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
    const bench = drawn.columns.find((one) => one.place === "bench");
    for (const ribbon of drawn.ribbons) {
      const column = drawn.columns.find((one) => one.place === ribbon.step.place);
      expect(ribbon.x).toBeGreaterThanOrEqual(column?.x ?? Infinity);
      expect(ribbon.x + ribbon.width).toBeLessThanOrEqual((column?.x ?? 0) + (column?.width ?? 0));
    }
    const whole = drawn.ribbons.find((one) => one.id === "cake_box");
    const one = drawn.ribbons.find((ribbon) => ribbon.id === "short_0");
    expect(whole?.width).toBeGreaterThan(2 * (one?.width ?? 0));
    expect(drawn.label.x + drawn.label.width).toBeLessThanOrEqual((bench?.x ?? 0) + (bench?.width ?? 0));
  });

  it("goes to the next step by way of the fridge it waits in", () => {
    const kept = clock();
    kept.steps.coat = step("bench", at(4, 14, 0), at(4, 14, 20));
    kept.steps.hard = step("freezer", at(4, 14, 20), at(4, 14, 30), { follows: ["coat"] });
    kept.steps.hold = step("fridge", at(4, 14, 30), at(4, 15, 0), { kind: "hold", follows: ["hard"] });
    kept.steps.next = step("bench", at(4, 15, 0), at(4, 15, 10), { follows: ["hard", "hold"] });
    const ways = drawClock(kept, 900, 62).ways.filter(({ to }) => ["hard", "hold", "next"].includes(to));
    expect(ways.map(({ from, to }) => `${from} to ${to}`)).toEqual([
      "coat to hard",
      "hard to hold",
      "hold to next",
    ]);
  });

  it.each([500, 640, 816, 1400])("fits in %d px, with thirty tiers too", (width) => {
    const many = clock();
    for (let tier = 4; tier <= 30; tier += 1)
      many.steps[`more_${tier}`] = step("fridge", at(4, 10, 0), at(4, 11, 0), { tier, of: `tier ${tier}` });
    const last = drawClock(many, width, 62).columns.at(-1);
    expect((last?.x ?? 0) + (last?.width ?? 0)).toBeLessThanOrEqual(width);
  });
});
