import { describe, expect, it } from "vitest";
import type { Card } from "@/api/types";
import { GAP, setOut } from "./setOut";

const card = (id: string, wide: number, high: number, due: string | null = null): Card =>
  ({ id, due, outside: { base_diameter: { value: wide }, height: { value: high } } }) as unknown as Card;
const unseen = (id: string): Card => ({ id, due: null, outside: null }) as unknown as Card;

describe("orders set out on shelves", () => {
  it("stand on one where there is room, all to one scale", () => {
    const [row, ...more] = setOut([card("a", 250, 120), card("b", 300, 200)], 1200);
    expect(more).toEqual([]);
    expect(new Set(row?.cards.map((one) => one.scale)).size).toBe(1);
    const taken = row?.cards.reduce((sum, one) => sum + one.cell + GAP, 0) ?? Infinity;
    expect(taken).toBeLessThanOrEqual(1200 + 2 * GAP);
  });

  it("go on to the next shelf in their order, none of them cut off at the edge", () => {
    const many = Array.from({ length: 12 }, (_, at) => card(String(at), 300, 250));
    const rows = setOut(many, 1000);
    expect(rows.length).toBeGreaterThan(1);
    expect(rows.flatMap((row) => row.cards.map((one) => one.card.id))).toEqual(many.map((one) => one.id));
    for (const row of rows)
      expect(row.cards.reduce((sum, one) => sum + one.cell + GAP, 0)).toBeLessThanOrEqual(1000);
  });

  it("are not shrunk by a giant among them, which is drawn smaller itself", () => {
    const [row] = setOut([card("a", 250, 150), card("b", 250, 160), card("c", 300, 900)], 1400);
    expect(row?.cards.map((one) => one.smaller)).toEqual([false, false, true]);
    const [small, , giant] = row?.cards ?? [];
    expect((giant?.scale ?? 1) * 900).toBeCloseTo((small?.scale ?? 0) * 200, 6);
    expect(row?.high).toBeCloseTo((small?.scale ?? 0) * 200 + 2, 6);
  });

  it("have a heading for each day, once", () => {
    const [first, second, third] = ["2026-12-03T09:00", "2026-12-03T17:00", "2026-12-04T09:00"];
    const rows = setOut(
      [card("a", 200, 90, first), card("b", 200, 90, second), card("c", 200, 90, third)],
      2000,
    );
    expect(rows.flatMap((row) => row.cards.map((one) => one.heading))).toEqual([
      "Thursday 3 December",
      "",
      "Friday 4 December",
    ]);
  });

  it("that cannot be shown keep the room of a small cake", () => {
    const [row] = setOut([unseen("a"), card("b", 200, 150)], 1200);
    expect(row?.cards[0]?.cell).toBeCloseTo(row?.cards[1]?.cell ?? 0, 6);
  });
});
