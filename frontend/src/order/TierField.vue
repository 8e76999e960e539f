<script setup lang="ts">
/** One number of one tier, editable; in the panel with its label, in the drawing without. */
import { computed } from "vue";
import MeasureField from "@/ui/MeasureField.vue";
import { askAt, setAt, usualAt, valueAt } from "./kinds";
import { useOrder } from "./order";

const props = defineProps<{
  /** Its path below the tier. */
  field: string;
  index?: number;
  figure?: string;
  quiet?: boolean;
  large?: boolean;
  usual?: number;
}>();
const order = useOrder();
const index = computed(() => props.index ?? order.tier);
const tier = computed(() => order.document?.design.tiers[index.value]);
const ask = computed(() => (tier.value ? askAt(tier.value, props.field) : undefined));
const usual = computed(() => {
  if (props.usual !== undefined) return props.usual;
  return order.document && tier.value ? usualAt(tier.value, props.field, order.document.practice) : undefined;
});

function change(value: number | null): void {
  order.edit((draft) => {
    const changed = draft.design.tiers[index.value];
    if (changed) setAt(changed, props.field, value);
  });
}
</script>

<template>
  <MeasureField
    v-if="tier && ask"
    :key="`${field}-${index}`"
    :label="ask.words"
    :value="valueAt(tier, field)"
    :usual="usual"
    :limit="ask.limit"
    :optional="ask.left ?? undefined"
    :percent="ask.percent"
    :pointer="`#/design/tiers/${index}/${field}`"
    :figure="figure"
    :quiet="quiet"
    :large="large"
    @change="change"
  />
</template>
