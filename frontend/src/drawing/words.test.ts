import { describe, expect, it } from "vitest";
import { sceneOf } from "./wordScenes";
import { WORDS, wordsLike } from "./words";

describe("the words of the trade", () => {
  it("stand in the order of the alphabet, each once", () => {
    const names = WORDS.map((one) => one.word);
    expect(names).toEqual([...new Set(names)].toSorted((a, b) => a.localeCompare(b)));
  });

  it.each(WORDS.map((one) => [one.word, one] as const))("has a drawing of %s, within its frame", (_, one) => {
    const part = sceneOf(one.scene).find((drawn) => drawn.part === one.part);
    expect(part).toBeDefined();
    const numbers = (part?.d.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);
    expect(Math.max(...numbers)).toBeLessThanOrEqual(96);
    expect(one.means).toMatch(/\.$/);
  });

  it("are found by what is typed of them", () => {
    expect(wordsLike("soft filling").map((one) => one.word)).toEqual(["Dam"]);
    expect(wordsLike("")).toEqual(WORDS);
    expect(wordsLike("zebra")).toEqual([]);
  });
});
