import { describe, expect, it } from "vitest";
import type { Document } from "@/api/types";
import { titled } from "./titled";

const design = (...tins: [number, string?][]): Document["design"] =>
  ({
    tiers: tins.map(([tin, kind]) => ({ tin_diameter_mm: tin, shape: { kind: kind ?? "round" } })),
  }) as unknown as Document["design"];

describe("what a cake is called until it is named", () => {
  it("tells its tins and its shape", () => {
    expect(titled(design([254], [203.2], [152.4]), "in")).toBe("10/8/6 round");
    expect(titled(design([200, "square"]), "cm")).toBe("20 cm square");
    expect(titled(design([254], [203.2, "square"]), "in")).toBe("10/8 of several shapes");
    expect(titled(design([260.35]), "in")).toBe("10-1/4 round");
  });

  it("is no longer than a title may be, however many tiers there are", () => {
    const tiers = Array.from({ length: 30 }, (_, at): [number] => [560 - 16 * at]);
    expect(titled(design(...tiers), "mm").length).toBeLessThan(80);
  });
});
