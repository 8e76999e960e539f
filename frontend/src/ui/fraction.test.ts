import { describe, expect, it } from "vitest";
import { pieces, runs } from "./fraction";

const words = (text: string): string =>
  pieces(text)
    .map(({ plain }) => plain)
    .join("");

describe("fractions in a text", () => {
  it("are found between whole numbers and units, and nothing is lost", () => {
    expect(pieces("4 1/4 in")).toEqual([
      { plain: "4 " },
      { plain: "1/4", over: "1", under: "4", mixed: true },
      { plain: " in" },
    ]);
    expect(pieces("about 1/16 in")[1]?.mixed).toBe(false);
    for (const text of ["≈ 1/16", "12", "3.5 cm", "10 3/8 × 4 1/2 in", ""]) expect(words(text)).toBe(text);
    expect(pieces("10 3/8 × 4 1/2 in").filter((one) => one.over)).toHaveLength(2);
  });

  it("are not seen in dates or in numbers that go on", () => {
    expect(pieces("5/12/2026").some((one) => one.over)).toBe(false);
    expect(pieces("1/2.5").some((one) => one.over)).toBe(false);
  });
});

describe("runs of a text", () => {
  it("keep the whole number of a mixed one beside its fraction, so that no line parts them", () => {
    expect(runs("21 5/8 in")).toEqual([
      { plain: "5/8", over: "5", under: "8", mixed: true, whole: "21" },
      { plain: " in" },
    ]);
    expect(runs("≈ 10 3/8 × 4 1/2 in").map((one) => one.whole)).toEqual([
      undefined,
      "10",
      undefined,
      "4",
      undefined,
    ]);
    expect(runs("1/16 in")[0]?.whole).toBeUndefined();
    const all = (text: string) =>
      runs(text)
        .map((one) => (one.whole ? `${one.whole} ` : "") + one.plain)
        .join("");
    for (const text of ["21 5/8 in", "cut 4 of 5 1/8 in", "12", ""]) expect(all(text)).toBe(text);
  });
});
