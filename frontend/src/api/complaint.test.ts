import { describe, expect, it } from "vitest";
import { complaintWords } from "./complaint";
import type { Pantry } from "./types";

const pantry = {
  recipes: [{ name: "Heather syrup" }],
  packs: [{ item: "butter" }],
} as unknown as Pantry;
const said = (pointer: string, message: string): string =>
  complaintWords({ pointer, field: "", message }, pantry, (item) => item.toUpperCase());

describe("complaints", () => {
  it.each([
    [
      "#/pantry/recipes/0/lines/1/item",
      "is not known here",
      "Heather syrup, line 2: the item is not known here.",
    ],
    ["#/pantry/recipes/0/lines", "go round", "Heather syrup: its ingredients go round."],
    ["#/pantry/packs/0/size", "is listed twice", "BUTTER: the pack is listed twice."],
    ["#/recipe/yield_g", "should be 1 g or more", "What it weighs in the end should be 1 g or more."],
    ["#/recipe/lines/0/unit", "cannot be used", "Line 1: the unit cannot be used."],
  ])("says whose %s it is, and what", (pointer, message, words) => {
    expect(said(pointer, message)).toBe(words);
  });
});
