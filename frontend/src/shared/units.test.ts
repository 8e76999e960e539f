import { describe, expect, it } from "vitest";
import cases from "../../../tests/units.json";
import {
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
