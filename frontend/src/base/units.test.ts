import { describe, expect, it } from "vitest";
import cases from "../../../tests/units.json";
import {
  lacking,
  lengthForEditing,
  lengthMeasure,
  type LengthUnit,
  parseLength,
  parseWeight,
  type Rounding,
  UnitError,
  weightMeasure,
  type WeightUnit,
} from "./units";

describe("the table of cases shared with the core", () => {
  it.each(cases.lengths)("reads the length %s in %s", (text, unit, mm) => {
    expect(parseLength(String(text), unit as LengthUnit)).toBeCloseTo(Number(mm), 6);
  });
  it.each(cases.bad_lengths)("refuses the length %j", (text) => {
    expect(() => parseLength(text, "in")).toThrow(UnitError);
  });
  it.each(cases.weights)("reads the weight %s in %s", (text, unit, grams) => {
    expect(parseWeight(String(text), unit as WeightUnit)).toBeCloseTo(Number(grams), 6);
  });
  it.each(cases.bad_weights)("refuses the weight %j", (text) => {
    expect(() => parseWeight(text, "g")).toThrow(UnitError);
  });
  it.each(cases.read_lengths)("shows %d mm in %s rounded %s as %s", (mm, unit, rounding, shown) => {
    const { number, unit: name } = lengthMeasure(Number(mm), unit as LengthUnit, rounding as Rounding);
    expect(`${number} ${name}`).toBe(shown);
  });
  it.each(cases.read_weights)("shows %d g in %s rounded %s as %s", (grams, unit, rounding, shown) => {
    const { number, unit: name } = weightMeasure(Number(grams), unit as WeightUnit, rounding as Rounding);
    expect(`${number} ${name}`).toBe(shown);
  });
});

describe("a typed length shown for editing", () => {
  it.each([6, 203.2, 209.55, 12.34, 152.4, 0])("%d mm reads back to itself in every unit", (mm) => {
    for (const unit of ["in", "cm", "mm"] as const) {
      expect(parseLength(lengthForEditing(mm, unit), unit)).toBeCloseTo(mm, 1);
    }
  });
});

describe("parts read off a scale", () => {
  const part = (value: number, rounding: "up" | "down" | "nearest" = "nearest") => ({ value, rounding });

  it("say what they lack of their whole as it is read", () => {
    expect(lacking([part(1437.2), part(133.4), part(152.1)], 1735, "g")).toBe(15);
    expect(lacking([part(52), part(48)], 100, "g")).toBe(2);
    expect(lacking([part(60), part(40)], 100, "g")).toBe(0);
  });

  it("may come to more than it", () => {
    expect(lacking([part(53), part(53)], 106, "g")).toBe(0);
    expect(lacking([part(58), part(58)], 115, "g")).toBe(-5);
  });
});
