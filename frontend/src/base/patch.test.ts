import { describe, expect, it } from "vitest";
import { patch } from "./patch";

describe("changes to plain data", () => {
  it.each([
    [[{ op: "replace", path: "/due", value: "late" }], { due: "late", tiers: [{ cover: 1 }, { cover: 2 }] }],
    [[{ op: "remove", path: "/tiers/1" }], { due: "soon", tiers: [{ cover: 1 }] }],
    [
      [{ op: "replace", path: "/tiers/0/cover", value: 9 }],
      { due: "soon", tiers: [{ cover: 9 }, { cover: 2 }] },
    ],
    [
      [{ op: "add", path: "/tiers/-", value: { cover: 3 } }],
      { due: "soon", tiers: [{ cover: 1 }, { cover: 2 }, { cover: 3 }] },
    ],
    [[{ op: "remove", path: "/due" }], { tiers: [{ cover: 1 }, { cover: 2 }] }],
  ] as const)("are made where they belong: %j", (changes, expected) => {
    const data = { due: "soon", tiers: [{ cover: 1 }, { cover: 2 }] };
    patch(data, changes);
    expect(data).toEqual(expected);
  });

  it("are refused where nothing stands", () => {
    expect(() => patch({}, [{ op: "replace", path: "/tiers/0/cover", value: 1 }])).toThrow("/tiers/0/cover");
  });
});
