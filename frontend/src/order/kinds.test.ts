import { describe, expect, it } from "vitest";
import type { Tier } from "@/api/types";
import { setAt, TIER_FIELDS, valueAt } from "./fields";
import { BUILDS, COVERS, FINALS, isPlate, rebuilt, recovered, refinished } from "./kinds";

const tier = (): Tier =>
  ({
    tin_diameter_mm: 200,
    shape: { kind: "round" },
    build: { kind: "straight" },
    layers: { count: 3, height_mm: 30, bake: null },
    filling: { kind: "plain", medium: "dark_ganache", thickness_mm: null },
    crumb: { medium: "dark_ganache" },
    final: { kind: "freehand", medium: "dark_ganache", colour: "slate", top_mm: 5, edges: "sharp" },
    cover: { kind: "drape", medium: "modelling_chocolate", colour: "ivory" },
    borders: [],
  }) as unknown as Tier;

describe("a field of a tier", () => {
  it("is read and set at its path, where the tier has the part it belongs to", () => {
    const one = tier();
    expect(valueAt(one, "layers/height_mm")).toBe(30);
    setAt(one, "final/side_mm", 7);
    expect(valueAt(one, "final/side_mm")).toBe(7);
    expect(valueAt(one, "layers/bake/torte")).toBeNull();
    setAt(one, "layers/bake/torte", 2);
    expect(one.layers.bake).toBeNull();
  });
});

describe("a new kind", () => {
  it.each(BUILDS.map((one) => one.value))("of build, %s, has every number it asks for", (kind) => {
    const one = { ...tier(), build: rebuilt(tier(), kind) };
    expect(one.build.kind).toBe(kind);
    for (const name of BUILDS.find((build) => build.value === kind)?.fields ?? []) {
      const field = TIER_FIELDS[name] as { path: string; usual?: unknown };
      expect(valueAt(one, field.path) !== null || field.usual !== undefined).toBe(true);
    }
  });

  it.each(FINALS.map((one) => one.value))("of coat, %s, keeps what was spread where it is spread", (kind) => {
    const final = refinished(tier(), kind, 210);
    expect(final.kind).toBe(kind);
    if (kind === "towel") expect(final).toMatchObject({ medium: "american_buttercream" });
    else if ("medium" in final) expect(final).toMatchObject({ medium: "dark_ganache", colour: "slate" });
    if (isPlate(final)) expect(final.disc_diameter_mm).toBe(210);
  });

  it.each(COVERS.map((one) => one.value))(
    "of cover, %s, keeps its medium and colour where it is rolled",
    (kind) => {
      const cover = recovered(tier(), kind);
      expect(cover.kind).toBe(kind);
      if (kind === "collar") expect(cover).toMatchObject({ medium: "dark_chocolate" });
      else if ("medium" in cover)
        expect(cover).toMatchObject({ medium: "modelling_chocolate", colour: "ivory" });
    },
  );

  it("goes back from a collar to fondant, which is rolled", () => {
    const one = { ...tier(), cover: recovered(tier(), "collar") };
    expect(recovered(one, "drape")).toMatchObject({ medium: "fondant" });
  });
});
