import { describe, expect, it } from "vitest";
import { brokenLines, isCutShort } from "./lines";

const wide = (text: string): number => text.length;
const broken = (words: string, room: number, most = 2) => brokenLines(words, room, most, wide);

describe("words in a drawing", () => {
  it("stay on one line where they fit", () => {
    expect(broken("final coat, Top", 15)).toEqual(["final coat, Top"]);
  });

  it("go on the next line, as many as fit on each", () => {
    expect(broken("in hand, comes back", 11)).toEqual(["in hand,", "comes back"]);
    expect(broken("a bb ccc dddd eeeee", 8, 3)).toEqual(["a bb ccc", "dddd", "eeeee"]);
  });

  it("are cut short, with a mark, where there is no room left", () => {
    expect(broken("crumb coat, Middle", 12, 1)).toEqual(["crumb coat,…"]);
    expect(broken("Meringue buttercream", 8)).toEqual(["Meringue", "butterc…"]);
    expect(isCutShort(broken("Meringue buttercream", 8))).toBe(true);
    expect(isCutShort(broken("Meringue buttercream", 11))).toBe(false);
  });

  it("never come out wider than the room, save a letter and the mark", () => {
    for (let room = 2; room < 30; room += 1)
      for (const most of [1, 2, 3])
        for (const line of broken("in hand it comes back undetermined", room, most))
          expect(line.length).toBeLessThanOrEqual(room);
  });
});
