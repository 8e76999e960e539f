<script setup lang="ts">
/** How heavy this medium is as this kitchen makes it: weighed here, it counts for this order and for new ones. */
import { computed } from "vue";
import { copied } from "@/base/copy";
import { useHandbook } from "@/kitchen/handbook";
import { sourceWords, usePantry } from "@/kitchen/pantry";
import { useOrder } from "@/order/order";
import CupFields from "@/ui/CupFields.vue";

const props = defineProps<{ medium: string }>();
const order = useOrder();
const handbook = useHandbook();
const pantry = usePantry();
const medium = computed(
  () =>
    order.document?.media.find((one) => one.key === props.medium) ??
    handbook.media.find((one) => one.key === props.medium),
);

async function take(density: number): Promise<string> {
  const before = medium.value;
  if (!before) return "";
  const own = {
    ...copied(before),
    density_g_per_ml: density,
    density_source: { origin: "this kitchen" as const, reference: "" },
  };
  order.edit((draft) => (draft.media = [...draft.media.filter((one) => one.key !== own.key), own]));
  const kept = await pantry.change(
    (kept) => (kept.media = [...kept.media.filter((one) => one.key !== own.key), own]),
  );
  return kept
    ? "Taken for this order, and for every new one."
    : `Taken for this order. For new ones it could not be kept: ${pantry.trouble}`;
}
</script>

<template>
  <details v-if="medium">
    <summary>How heavy it is: {{ medium.density_g_per_ml }} g per ml</summary>
    <p class="soft">
      Taken {{ sourceWords(medium.density_source) }}. Fill a cup of yours level, weigh it, and take that
      instead.
    </p>
    <CupFields :take="take" />
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  padding-top: 10px;
  cursor: pointer;
}

.soft {
  padding: 6px 0;
}
</style>
