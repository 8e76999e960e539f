import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it } from "vitest";
import type { Handbook, Kind, Practice, Tier } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { askAt, newOfKind, choicesOf, isPlate, kindAt, setAt, usualAt, valueAt } from "./kinds";

const tier = (): Tier =>
  ({
    tin_diameter_mm: 200,
    shape: { kind: "square", corner_mm: 8 },
    build: { kind: "straight" },
    layers: { count: 3, height_mm: 30, bake: null },
    filling: { kind: "plain", medium: "dark_ganache", thickness_mm: null },
    crumb: { medium: "dark_ganache", colour: "slate" },
    final: { kind: "freehand", medium: "dark_ganache", colour: "slate", top_mm: 5, edges: "rounded" },
    cover: { kind: "drape", medium: "modelling_chocolate", colour: "ivory" },
    borders: [{ at: "foot", bead_mm: 9 }],
  }) as unknown as Tier;

const row = (kind: string, more: Partial<Kind> = {}): Kind =>
  ({
    kind,
    words: kind,
    icon: "",
    asks: [],
    picks: [],
    of_tin: {},
    keeps: [],
    media: [],
    crumb: null,
    ...more,
    begins: { kind, ...more.begins },
  }) as unknown as Kind;
const ask = (field: string, usual: string | null = null) => ({
  field,
  words: field,
  limit: field,
  usual,
  left: null,
  percent: false,
  one_tier: false,
});

const PARTS: Handbook["parts"] = [
  { path: "", kinds: [row("", { asks: [ask("tin_diameter_mm")] })] },
  {
    path: "shape",
    kinds: [
      row("square", { begins: { corner_mm: 0 }, keeps: ["corner_mm", "length_mm"] }),
      row("rectangle", {
        begins: { corner_mm: 0 },
        of_tin: { length_mm: 1.3 },
        keeps: ["corner_mm", "length_mm"],
      }),
      row("round"),
    ],
  },
  { path: "crumb", kinds: [row("", { asks: [ask("thickness_mm", "crumb_coat_mm")], media: ["ganache"] })] },
  {
    path: "final",
    kinds: [
      row("freehand", {
        asks: [ask("side_mm", "coat_side_mm")],
        begins: { medium: "meringue_buttercream", edges: "sharp" },
        keeps: ["medium", "colour", "top_mm"],
        media: ["ganache"],
      }),
      row("disc", {
        begins: { medium: "meringue_buttercream" },
        keeps: ["medium", "colour", "top_mm", "disc_diameter_mm"],
        media: ["ganache"],
      }),
      row("semi_naked", { crumb: "semi_naked_mm" }),
    ],
  },
  {
    path: "cover",
    kinds: [
      row("drape", { begins: { medium: "fondant" }, keeps: ["medium", "colour"], media: ["fondant"] }),
      row("panel", {
        begins: { medium: "fondant", stripes: [] },
        keeps: ["medium", "colour"],
        media: ["fondant"],
      }),
      row("collar", { begins: { medium: "dark_chocolate" }, media: ["chocolate"] }),
    ],
  },
  { path: "borders", kinds: [row("", { asks: [ask("bead_mm", "bead_mm")] })] },
];
const PRACTICE = {
  crumb_coat_mm: 2,
  semi_naked_mm: 3,
  coat_side_mm: 6,
  bead_mm: 8,
} as unknown as Practice;

beforeEach(() => {
  setActivePinia(createPinia());
  useHandbook().book = { parts: PARTS } as unknown as Handbook;
});

describe("a field of a tier", () => {
  it("is read and set at its path, where the tier has the part it belongs to", () => {
    const one = tier();
    expect(valueAt(one, "layers/height_mm")).toBe(30);
    setAt(one, "final/side_mm", 7);
    expect(valueAt(one, "final/side_mm")).toBe(7);
    expect(valueAt(one, "borders/0/bead_mm")).toBe(9);
    expect(valueAt(one, "layers/bake/torte")).toBeNull();
    setAt(one, "layers/bake/torte", 2);
    expect(one.layers.bake).toBeNull();
    setAt(one, "tin_diameter_mm", 180);
    expect(valueAt(one, "tin_diameter_mm")).toBe(180);
  });

  it("asks for what its kind has a row for, and for nothing else", () => {
    expect(askAt(tier(), "final/side_mm")?.usual).toBe("coat_side_mm");
    expect(askAt(tier(), "final/relief_mm")).toBeUndefined();
    expect(askAt(tier(), "borders/0/bead_mm")?.usual).toBe("bead_mm");
    expect(askAt(tier(), "borders/1/bead_mm")).toBeUndefined();
    expect(kindAt(tier(), "cover")?.kind).toBe("drape");
  });

  it("takes the usual of the practice; below a coat that is scraped back, that coat's own", () => {
    const one = tier();
    expect(usualAt(one, "final/side_mm", PRACTICE)).toBe(6);
    expect(usualAt(one, "crumb/thickness_mm", PRACTICE)).toBe(2);
    one.final = { kind: "semi_naked" };
    expect(usualAt(one, "crumb/thickness_mm", PRACTICE)).toBe(3);
    expect(usualAt(one, "tin_diameter_mm", PRACTICE)).toBeUndefined();
  });
});

describe("a new kind", () => {
  it("of shape keeps the corners and length it had, and else begins of the tin's own size", () => {
    expect(newOfKind(tier(), "shape", "rectangle")).toEqual({
      kind: "rectangle",
      corner_mm: 8,
      length_mm: 260,
    });
    const long = { ...tier(), shape: { kind: "rectangle", corner_mm: 2, length_mm: 310 } } as Tier;
    expect(newOfKind(long, "shape", "rectangle")).toMatchObject({ length_mm: 310 });
    expect(newOfKind(long, "shape", "round")).toEqual({ kind: "round" });
  });

  it("of coat keeps what was spread; over none it is of what lies below; a disc is as given, or as it was", () => {
    const disc = { disc_diameter_mm: 210 };
    const kept = { kind: "disc", medium: "dark_ganache", colour: "slate", top_mm: 5, disc_diameter_mm: 210 };
    expect(newOfKind(tier(), "final", "disc", disc)).toEqual(kept);
    const plated = { ...tier(), final: { ...kept, disc_diameter_mm: 190 } } as Tier;
    expect(newOfKind(plated, "final", "disc", disc)).toMatchObject({ disc_diameter_mm: 190 });
    const bare = { ...tier(), final: { kind: "semi_naked" } } as Tier;
    expect(newOfKind(bare, "final", "freehand")).toMatchObject({
      medium: "dark_ganache",
      colour: "slate",
      edges: "sharp",
    });
    expect(isPlate(plated.final) && !isPlate(bare.final)).toBe(true);
  });

  it("of cover keeps its medium where that can be rolled too, and not where it cannot", () => {
    expect(newOfKind(tier(), "cover", "panel")).toMatchObject({
      medium: "modelling_chocolate",
      colour: "ivory",
    });
    expect(newOfKind(tier(), "cover", "collar")).toMatchObject({ medium: "dark_chocolate" });
    const collar = { ...tier(), cover: newOfKind(tier(), "cover", "collar") } as Tier;
    expect(newOfKind(collar, "cover", "drape")).toMatchObject({ medium: "fondant" });
  });

  it("shares nothing with the one before it or the next", () => {
    const one = newOfKind<{ stripes: unknown[] }>(tier(), "cover", "panel");
    one.stripes.push({});
    expect(newOfKind<{ stripes: unknown[] }>(tier(), "cover", "panel").stripes).toEqual([]);
  });

  it("that no row is for is refused", () => {
    expect(() => newOfKind(tier(), "cover", "tent")).toThrow("no kind of cover is called tent");
    expect(choicesOf("shape").map((one) => one.value)).toEqual(["square", "rectangle", "round"]);
    expect(choicesOf("roof")).toEqual([]);
  });
});
