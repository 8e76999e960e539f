import { describe, expect, it } from "vitest";
import { nextOutOfCold, type Scheduled, upNext } from "./upNext";

const at = (day: number, hour: number): string => `2026-12-0${day}T${String(hour).padStart(2, "0")}:00:00`;
function step(id: string, day: number, from: number, to: number, place = "bench"): Scheduled {
  const [start, end] = [at(day, from), at(day, to)];
  return { id, step: { start, end, spans: [[start, end]], place, state: "" } as Scheduled["step"] };
}

describe("what comes up", () => {
  const work = [step("mix", 4, 8, 9), step("coat", 4, 10, 11), step("box", 5, 7, 8)];

  it.each([
    [at(4, 7), "mix", false, at(4, 11)],
    [at(4, 8), "mix", true, at(4, 11)],
    [at(4, 9), "coat", false, at(4, 11)],
    [at(4, 12), "box", false, at(5, 8)],
    [at(5, 9), undefined, false, undefined],
  ])("at %s is %s", (now, id, underWay, home) => {
    const found = upNext(work, new Date(now));
    expect([found.first?.id, found.underWay, found.home]).toEqual([id, underWay, home]);
  });

  it("is what has begun, however late, and never what is done", () => {
    const marked = (id: string, state: "begun" | "done"): Scheduled[] =>
      work.map((one) => (one.id === id ? { ...one, step: { ...one.step, state } } : one));
    expect(upNext(marked("mix", "begun"), new Date(at(4, 12))).first?.id).toBe("mix");
    expect(upNext(marked("mix", "begun"), new Date(at(4, 12))).underWay).toBe(true);
    expect(upNext(marked("coat", "done"), new Date(at(4, 9))).first?.id).toBe("box");
  });

  it("leaves the cold in the order in which it is done", () => {
    const cold = [step("long", 4, 8, 12, "fridge"), step("short", 4, 9, 10, "freezer"), ...work];
    expect(nextOutOfCold(cold, new Date(at(4, 8)))?.id).toBe("short");
    expect(nextOutOfCold(cold, new Date(at(4, 10)))?.id).toBe("long");
    expect(nextOutOfCold(cold, new Date(at(4, 12)))).toBeUndefined();
  });
});
