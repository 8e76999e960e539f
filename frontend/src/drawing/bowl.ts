/** The bowl looked at in the Mix lens, and what is decided of it: the order of its steps, and what is there already. */
import { computed, ref, watchEffect } from "vue";
import type { Schemas } from "@/api/client";
import { useOrder } from "@/order/order";
import { levelsOf } from "./vessels";

type BowlOrder = Schemas["BowlOrder"];

/** Its key in the plan. */
export const bowlInHand = ref("");

export function useBowl() {
  const order = useOrder();
  const bowls = computed(() => order.plan?.bowls ?? {});
  watchEffect(() => {
    const [first] = Object.keys(bowls.value);
    if (first && !(bowlInHand.value in bowls.value)) bowlInHand.value = first;
  });
  const bowl = computed(() => bowls.value[bowlInHand.value]);
  const decided = computed(() => order.document?.design.orders.find((one) => one.bowl === bowlInHand.value));
  const have = computed(() => decided.value?.have_g ?? null);
  /** The steps as they were put, at once, also while the figures are still on their way. */
  const steps = computed(() => {
    const levels = bowl.value && order.plan ? levelsOf(bowl.value, order.plan) : [];
    const found = levels.filter((one) => one.kind === "step");
    const wanted = decided.value?.steps ?? [];
    const place = (key: string): number => wanted.indexOf(key);
    return wanted.length ? found.sort((a, b) => place(a.key) - place(b.key)) : found;
  });

  /** Change what is decided of this bowl; where nothing is, nothing is written down. */
  function decide(how: (decided: BowlOrder) => BowlOrder): void {
    const bowl = bowlInHand.value;
    order.edit((draft) => {
      const before = draft.design.orders.find((one) => one.bowl === bowl) ?? { bowl, steps: [] };
      const after = how(before);
      draft.design.orders = draft.design.orders.filter((one) => one.bowl !== bowl);
      if (after.steps.length || after.have_g != null) draft.design.orders.push(after);
    });
  }

  /** Work this bowl in an order of one's own, or (null) in the one that needs least. */
  function setOrder(keys: string[] | null): void {
    decide((decided) => ({ ...decided, steps: keys ?? [] }));
  }

  function setHave(grams: number | null): void {
    decide((decided) => ({ ...decided, have_g: grams }));
  }

  /** A step may pass those of other tiers only: each tier keeps the order of its own work. */
  function mayMove(from: number, to: number): boolean {
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    const passed = steps.value.slice(low, high + 1).filter((one) => one.tier === steps.value[from]?.tier);
    return to >= 0 && to < steps.value.length && from !== to && passed.length === 1;
  }

  function move(from: number, to: number): void {
    if (!mayMove(from, to)) return;
    const keys = steps.value.map((one) => one.key);
    const [moved] = keys.splice(from, 1);
    if (moved) keys.splice(to, 0, moved);
    setOrder(keys);
  }

  return { bowls, bowl, have, steps, setOrder, setHave, mayMove, move };
}
