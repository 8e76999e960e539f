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
});
