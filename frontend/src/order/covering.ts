/** The order in which tiers are covered out of one bowl, and the bowls that the tier in hand is covered from. */
import { computed } from "vue";
import type { Bowl, Task } from "@/api/types";
import { useOrder } from "./order";

/** The key of the bowl and the step of a task of covering: `bowls.fondant.steps.tier_k7_cover.cover_tier`. */
function placeOf({ id }: Task): { bowl: string; step: string } {
  const [, bowl = "", , step = ""] = id.split(".");
  return { bowl, step };
}

export function useCovering() {
  const order = useOrder();
  const keys = computed(() => {
    const own = (order.plan?.covering ?? []).filter(
      (task) => placeOf(task).step === `tier_${order.tierId}_cover`,
    );
    return [...new Set(own.map((task) => placeOf(task).bowl))];
  });
  const bowls = computed(() =>
    keys.value.map((key) => order.plan?.bowls[key]).filter((bowl): bowl is Bowl => bowl !== undefined),
  );
  /** What is covered out of the first of them, in order, where that is more than this tier. */
  const tasks = computed(() => {
    const found = (order.plan?.covering ?? []).filter((task) => placeOf(task).bowl === keys.value[0]);
    return found.length > 1 ? found : [];
  });
  return { bowls, tasks };
}
