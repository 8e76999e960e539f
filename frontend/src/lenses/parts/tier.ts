/** The tier in hand, decided and planned, and ways to change it or to make the others like it. */
import { computed } from "vue";
import type { Tier } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { kindsOf } from "@/order/kinds";
import { type AlterTier, useOrder } from "@/order/order";

export function useTier() {
  const order = useOrder();
  const tier = computed(() => order.document?.design.tiers[order.tier]);
  const planned = computed(() => order.plan?.tiers[order.tier]);
  const several = computed(() => (order.document?.design.tiers.length ?? 0) > 1);

  /** The tier in hand as a sentence calls it: by its own name, or “middle tier”, “tier 2”, “cake”. */
  const tierWords = computed(() => {
    const name = planned.value?.name ?? "";
    if (tier.value?.name) return name;
    return name.toLowerCase() + (/^(Tier|Cake)/.test(name) ? "" : " tier");
  });

  /** Change the tier in hand, or every tier where the head of the lens says so. */
  function change(alter: AlterTier): void {
    order.editTier(order.tier, alter);
  }

  /** Give every other tier a copy of what `copy` puts across from the tier in hand. */
  function sameForAll(copy: (from: Tier, to: Tier) => void): void {
    const index = order.tier;
    order.edit((draft) => {
      const from = draft.design.tiers[index];
      if (!from) return;
      draft.design.tiers.forEach((to, at) => {
        if (at !== index) copy(structuredClone(from), to);
      });
    });
  }

  return { order, tier, planned, several, tierWords, change, sameForAll };
}

/** The kinds of medium that a part which has one kind alone is made of. */
export function mediaOf(part: string): readonly string[] {
  return kindsOf(part)[0]?.media ?? [];
}

/** The kinds of medium that a field of its own may name. */
export function mediaFor(field: string): readonly string[] {
  return useHandbook().book?.field_media[field] ?? [];
}
