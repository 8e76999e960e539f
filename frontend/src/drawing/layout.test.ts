import { describe, expect, it } from "vitest";
import { fit, path, spread, ticks } from "./layout";

const ROOM = { width: 800, height: 600, left: 150, right: 200, top: 40, bottom: 40 };

describe("fit", () => {
  it.each([
    [300, 400],
    [900, 50],
    [60, 1200],
  ])("keeps a cake %d wide and %d high inside the room, touching one side", (width, height) => {
    const sheet = fit(width, height, ROOM);
    const across = (width / 2) * sheet.scale;
    expect(sheet.axis - across).toBeGreaterThanOrEqual(150 - 1e-6);
    expect(sheet.axis + across).toBeLessThanOrEqual(600 + 1e-6);
    expect(sheet.table - height * sheet.scale).toBeGreaterThanOrEqual(40 - 1e-6);
    expect(sheet.table).toBeLessThanOrEqual(560 + 1e-6);
    expect(Math.min(450 - 2 * across, 520 - height * sheet.scale)).toBeCloseTo(0, 6);
  });
});

describe("spread", () => {
  it("leaves labels that are far apart where they are", () => {
    expect(spread([300, 100, 200], 40, 0, 600)).toEqual([300, 100, 200]);
  });
  it("parts labels that crowd, keeps their order and stays inside", () => {
    const placed = spread([590, 592, 10, 595, 12], 40, 20, 580);
    const sorted = [...placed].sort((a, b) => a - b);
    sorted.slice(1).forEach((y, index) => expect(y - (sorted[index] ?? 0)).toBeGreaterThanOrEqual(40 - 1e-9));
    expect(sorted[0]).toBeGreaterThanOrEqual(20);
    expect(sorted.at(-1)).toBeLessThanOrEqual(580);
    expect(placed[0]).toBeLessThan(placed[1] ?? 0);
  });
});

describe("ticks", () => {
  it("marks half inches and numbers whole ones", () => {
    const marks = ticks(51, "in", 2);
    expect(marks.map((mark) => mark.words)).toEqual(["", "", "1", "", "2"]);
  });
  it("numbers fewer marks when there is less room", () => {
    const numbered = ticks(300, "cm", 0.5).filter((mark) => mark.words);
    expect(numbered.map((mark) => mark.words)).toEqual(["10", "20", "30"]);
  });
});

describe("path", () => {
  it("puts millimetres on the sheet, and mirrors them about the axis", () => {
    const sheet = { scale: 2, axis: 100, table: 500 };
    const corners = [
      [0, 0],
      [10, 0],
      [10, 30],
    ];
    expect(path(corners, sheet)).toBe("M100.00 500.00L120.00 500.00L120.00 440.00Z");
    expect(path(corners, sheet, true)).toContain("80.00 440.00");
  });
});
