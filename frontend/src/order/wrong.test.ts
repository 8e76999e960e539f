import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it } from "vitest";
import type { Document, Handbook } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { wrongWords } from "./wrong";

const box = { kind: "box", wide_mm: 1 };
const tier = {
  build: { kind: "joined", solids: [box, box] },
  cover: { kind: "patches", own_seams: [{}, {}] },
};
const order = (tiers: number): Document =>
  ({ title: "", design: { tiers: Array.from({ length: tiers }, () => tier) } }) as unknown as Document;

describe("what is wrong with an order", () => {
  beforeEach(() => {
    setActivePinia(createPinia());
    const asks = [{ field: "wide_mm", words: "Wide" }];
    const parts = [{ path: "build/solids", kinds: [{ kind: "box", asks, picks: [] }] }];
    const habits = [{ name: "ready_before_min", words: "Ready before it is due" }];
    useHandbook().book = { parts, habits } as unknown as Handbook;
  });

  it.each([
    [1, "#/design/tiers/0/build", "cannot be made: it is hollow", "The form cannot be made: it is hollow."],
    [2, "#/design/tiers/1/build", "cannot be made", "Tier 2: the form cannot be made."],
    [
      1,
      "#/design/tiers/0/build/solids/1/wide_mm",
      "should be 2 mm or more",
      "Solid 2: wide should be 2 mm or more.",
    ],
    [2, "#/design/tiers/0/build/solids/1", "is no solid", "Tier 1, solid 2 is no solid."],
    [
      1,
      "#/design/tiers/0/cover/own_seams/0/within/seam",
      "should be none",
      "Seam 1: where it ends should be none.",
    ],
    [1, "#/practice/ready_before_min", "should be shorter", "Ready before it is due should be shorter."],
    [1, "#/title", "should be shorter", "The title should be shorter."],
    [1, "#/design", "takes too long to work out", "The order takes too long to work out."],
  ])("is said of %i tiers at %s", (tiers, pointer, message, words) => {
    expect(wrongWords({ pointer, field: "", message }, order(tiers))).toBe(words);
  });
});
