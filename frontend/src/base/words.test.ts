import { describe, expect, it, vi } from "vitest";
import { computed, ref } from "vue";
import { spoken, writtenFormula } from "./formula";
import { stable } from "./stable";
import { dueWords } from "./time";

describe("a formula", () => {
  it("is written as people write one", () => {
    expect(writtenFormula("pi / 4 * across**2 - 2 * skin")).toBe("π ÷ 4 × across² − 2 × skin");
    expect(writtenFormula("ceil((need + reserve) / step) * step")).toBe("up((need + reserve) ÷ step) × step");
    expect(writtenFormula("sum")).toBe("");
  });
  it("calls steps by the tiers' own names", () => {
    const tiers = [
      { id: "1", name: "Bottom" },
      { id: "k7", name: "Comb" },
    ];
    expect(spoken("tier_k7_crumb", tiers)).toBe("Comb, crumb coat");
    expect(spoken("tier_k7", tiers)).toBe("Comb");
    expect(spoken("tier 1", tiers)).toBe("Bottom");
    expect(spoken("tier 3", tiers)).toBe("tier 3");
    expect(spoken("dam_width")).toBe("dam width");
  });
});

describe("a due hour", () => {
  it("is said by day and clock, or said to be missing", () => {
    expect(dueWords("2026-11-28T11:00:00")).toBe("due Saturday 28 November, 11:00");
    expect(dueWords(null)).toBe("no due hour yet");
  });
  it.each([
    [["en-US"], "due Saturday, November 28, 11:00 AM"],
    [["de-DE"], "due Saturday 28 November, 11:00"],
    [["fr-FR", "en-US"], "due Saturday, November 28, 11:00 AM"],
  ])("is in the order and on the clock of who reads %s", async (languages, words) => {
    vi.stubGlobal("navigator", { languages });
    vi.resetModules();
    const own = await import("./time");
    expect(own.dueWords("2026-11-28T11:00:00").replace(/\u202f/g, " ")).toBe(words);
  });
});

describe("a stable value", () => {
  it("keeps its identity while it says the same", () => {
    const source = ref({ name: "ivory", other: 1 });
    const names = stable(() => [source.value.name]);
    const seen = computed(() => names.value);
    const before = seen.value;
    source.value = { name: "ivory", other: 2 };
    expect(seen.value).toBe(before);
    source.value = { name: "blush", other: 2 };
    expect(seen.value).toEqual(["blush"]);
  });
});
