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
