<script setup lang="ts">
/** Weigh a cup of yours: the density of this medium as this kitchen makes it, for this order and for new ones. */
import { computed, ref } from "vue";
import { answered, api, Refused } from "@/api/client";
import { useOrder } from "@/order/order";
import { useHandbook } from "@/shared/handbook";
import MeasureField from "@/shared/MeasureField.vue";
import { usePantry } from "@/shared/pantry";

const props = defineProps<{ medium: string }>();
const order = useOrder();
const handbook = useHandbook();
const pantry = usePantry();
const holds = ref<number | null>(240);
const weighs = ref<number | null>(null);
const told = ref("");
const medium = computed(
  () =>
    order.document?.media.find((one) => one.key === props.medium) ??
    handbook.media.find((one) => one.key === props.medium),
);
const source = computed(() => {
  const from = medium.value?.density_source;
  return from?.origin === "this kitchen"
    ? "as you weighed it"
    : `${from?.origin}${from?.reference ? `: ${from.reference}` : ""}`;
});

async function take(): Promise<void> {
  const before = medium.value;
  if (!before || !holds.value || !weighs.value) {
    told.value = "Type what your cup holds and what it weighs when filled level.";
    return;
  }
  try {
    const body = { cup_g: weighs.value, volume_ml: holds.value };
    const { value } = await answered(api.POST("/api/pantry/density", { body }));
    if (value < 0.1 || value > 3) {
      told.value = "That would be lighter than foam or heavier than rock. Look at both numbers again.";
      return;
    }
    const own = {
      ...JSON.parse(JSON.stringify(before)),
      density_g_per_ml: Math.round(value * 1000) / 1000,
      density_source: { origin: "this kitchen", reference: "" },
    } as typeof before;
    order.edit((draft) => (draft.media = [...draft.media.filter((one) => one.key !== own.key), own]));
    await pantry.open();
    await pantry.change((kept) => (kept.media = [...kept.media.filter((one) => one.key !== own.key), own]));
    told.value = "Taken for this order, and for every new one.";
  } catch (error) {
    told.value =
      error instanceof Refused
        ? error.problem.detail
        : "The kitchen's server cannot be reached just now. Nothing was changed.";
  }
}
</script>

<template>
  <details v-if="medium">
    <summary>How heavy it is: {{ medium.density_g_per_ml }} g per ml</summary>
    <p class="soft">Taken {{ source }}. Fill a cup of yours level, weigh it, and take that instead.</p>
    <div class="rows">
      <MeasureField
        label="The cup holds, ml"
        limit="cup"
        :value="holds"
        @change="(value) => (holds = value)"
      />
      <MeasureField
        label="It weighs, g, without the cup"
        limit="cup"
        optional="not weighed"
        :value="weighs"
        @change="(value) => (weighs = value)"
      />
    </div>
    <button class="act" @click="take">Take this weight</button>
    <p v-if="told" class="soft" role="status">{{ told }}</p>
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
  color: var(--soft);
}

.act {
  margin-top: 8px;
}
</style>
