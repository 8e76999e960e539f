import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Document, Plan } from "@/api/types";

vi.hoisted(() => {
  vi.stubGlobal("location", { origin: "http://kitchen.test" });
  vi.stubGlobal("localStorage", { getItem: () => null, setItem: () => null, removeItem: () => null });
});

import { useOrder } from "@/order/order";
import { bowlInHand, useBowl } from "./bowl";

const grams = (value: number) => ({
  value,
  unit: "g",
  rule: "total",
  rounding: "nearest",
  given: {},
  id: "",
});
const use = (tier: number, step: string) => ({ tier, step, stays: grams(100), lost: grams(5) });
const STEPS = ["tier_1_filling", "tier_1_crumb", "tier_2_filling", "tier_2_crumb"];

/** A plan of one bowl over two tiers, each filled before it is crumb-coated. */
function plan(): Plan {
  const steps = Object.fromEntries(
    STEPS.map((key) => [key, use(Number(key.split("_")[1]), key.split("_")[2] ?? "")]),
  );
  const none = grams(0);
  const bowl = { medium: "cream", steps, mix: grams(420), need: grams(420), reserve: none, comes_back: none };
  return { tiers: [{ name: "Bottom" }, { name: "Top" }], bowls: { cream: bowl } } as unknown as Plan;
}

beforeEach(() => {
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no connection")));
  setActivePinia(createPinia());
  bowlInHand.value = "";
  const order = useOrder();
  const build = { kind: "straight" };
  order.document = {
    title: "Two",
    design: { tiers: [{ build }, { build }], orders: [] },
  } as unknown as Document;
  order.plan = plan();
});

const orders = () => useOrder().document?.design.orders;

describe("the bowl in hand", () => {
  it("is the first one until another is chosen", () => {
    const { bowl, steps } = useBowl();
    expect(bowlInHand.value).toBe("cream");
    expect(bowl.value?.medium).toBe("cream");
    expect(steps.value.map((step) => step.words)).toEqual([
      "filling, Bottom",
      "crumb coat, Bottom",
      "filling, Top",
      "crumb coat, Top",
    ]);
  });

  it("lets a step pass those of other tiers only", () => {
    const { mayMove } = useBowl();
    expect(mayMove(0, 1)).toBe(false);
    expect(mayMove(1, 2)).toBe(true);
    expect(mayMove(1, 3)).toBe(true);
    expect(mayMove(0, 2)).toBe(false);
    expect(mayMove(2, 2)).toBe(false);
    expect(mayMove(3, 4)).toBe(false);
  });

  it("writes an order of one's own down, shows it at once, and forgets it again", () => {
    const { steps, move, setOrder } = useBowl();
    move(1, 3);
    const wanted = ["tier_1_filling", "tier_2_filling", "tier_2_crumb", "tier_1_crumb"];
    expect(orders()).toEqual([{ bowl: "cream", steps: wanted }]);
    expect(steps.value.map((step) => step.key)).toEqual(wanted);
    move(0, 3);
    expect(orders()).toEqual([{ bowl: "cream", steps: wanted }]);
    setOrder(null);
    expect(orders()).toEqual([]);
  });

  it("keeps what is there already apart from the order of the steps", () => {
    const { have, move, setHave, setOrder } = useBowl();
    setHave(400);
    expect(have.value).toBe(400);
    move(1, 2);
    setOrder(null);
    expect(orders()).toEqual([{ bowl: "cream", steps: [], have_g: 400 }]);
    setHave(null);
    expect(orders()).toEqual([]);
  });
});
