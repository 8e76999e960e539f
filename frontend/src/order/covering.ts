/** The bowls that cover the selected tier, and the order in which the first of them covers its tiers. */
import { computed } from "vue";
import { useOrder } from "./order";

export function useCovering() {
  const order = useOrder();
  const found = computed(() =>
    Object.entries(order.plan?.bowls ?? {}).filter(([, bowl]) => `tier_${order.tierId}_cover` in bowl.steps),
  );
  const bowls = computed(() => found.value.map(([, bowl]) => bowl));
  /** Empty if the first bowl covers this tier alone. */
  const tasks = computed(() => {
    const inOrder = order.plan?.covering[found.value[0]?.[0] ?? ""] ?? [];
    return inOrder.length > 1 ? inOrder : [];
  });
  return { bowls, tasks };
}
