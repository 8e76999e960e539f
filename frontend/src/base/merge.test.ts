import { describe, expect, it } from "vitest";
import { merged } from "./merge";

const BASE = {
  title: "Fair",
  design: {
    tiers: [
      { tin: 250, layers: { count: 3 }, cover: { kind: "drape", mm: 3 } },
      { tin: 200, layers: { count: 3 }, cover: { kind: "drape", mm: 3 } },
    ],
  },
};
type Made = typeof BASE;
const changed = (alter: (made: Made) => void): Made => {
  const made = structuredClone(BASE);
  alter(made);
  return made;
};

const tierOf = (made: Made, at: number) => made.design.tiers[at] as Made["design"]["tiers"][number];

describe("two changes of one document", () => {
  it("are both in it where they are of different places", () => {
    const mine = changed((made) => (tierOf(made, 0).tin = 300));
    const theirs = changed((made) => {
      made.title = "Great fair";
      tierOf(made, 0).layers.count = 4;
      tierOf(made, 1).cover.mm = 4;
    });
    const both = changed((made) => {
      made.title = "Great fair";
      tierOf(made, 0).tin = 300;
      tierOf(made, 0).layers.count = 4;
      tierOf(made, 1).cover.mm = 4;
    });
    expect(merged(BASE, mine, theirs)).toEqual({ value: both, differing: [] });
    expect(merged(BASE, theirs, mine).value).toEqual(both);
  });

  it("are told where they are of one place, and mine stands", () => {
    const mine = changed((made) => (tierOf(made, 1).tin = 180));
    const theirs = changed((made) => (tierOf(made, 1).tin = 150));
    expect(merged(BASE, mine, theirs)).toEqual({
      value: mine,
      differing: [{ path: ["design", "tiers", 1, "tin"], mine: 180, theirs: 150 }],
    });
    expect(merged(BASE, mine, mine).differing).toEqual([]);
  });

  it("keep a tier that one of them added, and do not mix two kinds of a part", () => {
    const mine = changed((made) => made.design.tiers.push({ ...tierOf(made, 1), tin: 100 }));
    const theirs = changed((made) => (tierOf(made, 0).tin = 300));
    expect(merged(BASE, mine, theirs).value.design.tiers.map((tier) => tier.tin)).toEqual([300, 200, 100]);
    const taken = changed((made) => made.design.tiers.pop());
    expect(merged(BASE, taken, theirs).differing).toHaveLength(1);
    const other = changed((made) => (tierOf(made, 0).cover = { kind: "panel", mm: 3 }));
    const thicker = changed((made) => (tierOf(made, 0).cover.mm = 5));
    expect(merged(BASE, other, thicker).differing.map((one) => one.path.join("/"))).toEqual([
      "design/tiers/0/cover",
    ]);
  });
});

describe("two changes of a list whose parts have ids", () => {
  type Part = { id: string; mm: number; beads?: { id: string; mm: number }[] };
  const parts = (...list: [string, number][]): Part[] => list.map(([id, mm]) => ({ id, mm }));
  const base = parts(["a", 1], ["b", 2], ["c", 3]);
  const ids = (list: Part[]): string => list.map((part) => `${part.id}${part.mm}`).join(" ");

  it.each([
    [
      "reordered and changed",
      parts(["c", 3], ["a", 1], ["b", 2]),
      parts(["a", 1], ["b", 5], ["c", 3]),
      "c3 a1 b5",
    ],
    [
      "one added by each, in the middle and at the end",
      parts(["a", 1], ["x", 8], ["b", 2], ["c", 3]),
      parts(["a", 1], ["b", 2], ["c", 3], ["y", 9]),
      "a1 x8 b2 c3 y9",
    ],
    [
      "one taken out, another changed",
      parts(["a", 1], ["c", 3]),
      parts(["a", 1], ["b", 2], ["c", 7]),
      "a1 c7",
    ],
    ["the same one taken out by both", parts(["a", 1], ["c", 3]), parts(["a", 1], ["c", 3]), "a1 c3"],
    [
      "one put first, while another goes last",
      parts(["x", 8], ["a", 1], ["b", 2], ["c", 3]),
      parts(["b", 2], ["c", 3], ["a", 1]),
      "x8 b2 c3 a1",
    ],
  ])("are both in it: %s", (_, mine, theirs, both) => {
    expect(merged(base, mine, theirs).differing).toEqual([]);
    expect(ids(merged(base, mine, theirs).value)).toBe(both);
    const swapped = merged(base, theirs, mine).value;
    expect(swapped.map((part) => `${part.id}${part.mm}`).sort()).toEqual(both.split(" ").sort());
  });

  it("are asked about where one took out what the other changed", () => {
    const [without, changed] = [parts(["a", 1], ["c", 3]), parts(["a", 1], ["b", 5], ["c", 3])];
    const kept = merged(base, changed, without);
    expect(ids(kept.value)).toBe("a1 b5 c3");
    expect(kept.differing).toEqual([{ path: [1], mine: { id: "b", mm: 5 }, theirs: undefined }]);
    const gone = merged(base, without, changed);
    expect(ids(gone.value)).toBe("a1 c3");
    expect(gone.differing).toEqual([{ path: [], mine: undefined, theirs: { id: "b", mm: 5 } }]);
  });

  it("are put together within a part that was moved", () => {
    const beaded = [{ ...base[0], beads: [{ id: "1", mm: 4 }] }, ...base.slice(1)] as Part[];
    const mine = [
      ...beaded.slice(1),
      {
        ...beaded[0],
        beads: [
          { id: "1", mm: 4 },
          { id: "m", mm: 6 },
        ],
      },
    ] as Part[];
    const theirs = [{ ...beaded[0], beads: [{ id: "1", mm: 5 }] }, ...beaded.slice(1)] as Part[];
    const both = merged(beaded, mine, theirs);
    expect(both.differing).toEqual([]);
    expect(both.value.map((part) => part.id)).toEqual(["b", "c", "a"]);
    expect(both.value[2]?.beads).toEqual([
      { id: "1", mm: 5 },
      { id: "m", mm: 6 },
    ]);
  });
});
