import { describe, expect, it } from "vitest";
import { LENS_KEYS, LENSES, lensByKey, lensCalled } from ".";
import type { Lens } from "./parts/lens";

/** The list after so many more lenses have been added to it. */
function withMore(count: number): Lens[] {
  const added = Array.from({ length: count }, (_, number) => ({ ...LENSES[0], name: `added ${number}` }));
  return [...LENSES, ...added];
}

describe("the list of lenses", () => {
  it("has a key for each, beyond the ninth too", () => {
    const lenses = withMore(6);
    const keys = LENS_KEYS.slice(0, lenses.length);
    expect(keys.map((key) => lensByKey(key, lenses)?.name)).toEqual(lenses.map((one) => one.name));
    expect(new Set(LENS_KEYS).size).toBe(LENS_KEYS.length);
    expect(lensByKey("q", lenses)).toBe(lenses[9]);
  });

  it("has no lens for any other key", () => {
    for (const key of ["", "0", "12", "arrowup", "q", "z"]) expect(lensByKey(key)).toBeUndefined();
  });

  it("finds a lens by its name and by what its checks are about, and else the first", () => {
    for (const one of LENSES) {
      expect(lensCalled(one.name)).toBe(one);
      if (one.subject) expect(lensCalled(one.subject)).toBe(one);
    }
    expect(lensCalled("nothing")).toBe(LENSES[0]);
    expect(lensCalled(undefined)).toBe(LENSES[0]);
  });
});
