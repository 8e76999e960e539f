import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it, vi } from "vitest";
import cases from "../../../tests/units.json";
import { type Shown, useSettings } from "./settings";

beforeEach(() => {
  vi.stubGlobal("localStorage", {
    getItem: () => null,
    setItem: () => undefined,
    removeItem: () => undefined,
  });
  setActivePinia(createPinia());
});

describe("what a quantity reads as", () => {
  it.each(cases.read_amounts as [number, Shown["unit"], "up" | "down" | "nearest", string][])(
    "%s %s, %s, is %s, on screen as on every paper",
    (value, unit, rounding, words) => {
      expect(useSettings().words({ value, unit, rounding })).toBe(words);
    },
  );

  it("is rounded as the plan says, and to the nearest mark where it says nothing", () => {
    const settings = useSettings();
    settings.length = "in";
    expect(settings.words({ value: 130.2, unit: "mm" })).toBe("5 1/8 in");
    expect(settings.words({ value: 130.2, unit: "mm", rounding: "up" })).toBe("5 1/4 in");
    expect(settings.filled("cut to {it}", { it: { value: 11.5, unit: "mm", rounding: "up" } })).toBe(
      "cut to 1/2 in",
    );
  });

  it.each([
    ["in", ["8.25 in", "4.5625 in", "1 in", "19.375 in"]],
    ["cm", ["20.955 cm", "11.589 cm", "2.54 cm", "49.212 cm"]],
    ["mm", ["209.55 mm", "115.89 mm", "25.4 mm", "492.13 mm"]],
  ] as const)("adds up in a working as it is shown, to one of the last place, in %s", (unit, words) => {
    const settings = useSettings();
    settings.length = unit;
    const shown = [209.55, 115.8875, 25.4, 492.125].map((value) => settings.unrounded({ value, unit: "mm" }));
    expect(shown).toEqual(words);
    const [width, height, overlap, sheet] = words.map(parseFloat) as [number, number, number, number];
    expect(Math.abs(width + 2 * height + 2 * overlap - sheet)).toBeLessThan(0.0101);
  });
});
