<script setup lang="ts">
/** One number of one tier, editable; in the panel with its label, in the drawing without. */
import { computed } from "vue";
import MeasureField from "@/shared/MeasureField.vue";
import { useOrder } from "./order";
import { setAt, TIER_FIELDS, type TierFieldName, type TierFieldSpec, valueAt } from "./fields";

const props = defineProps<{
  field: TierFieldName;
  index?: number;
  figure?: string;
  quiet?: boolean;
  large?: boolean;
  usual?: number;
}>();
const order = useOrder();
const index = computed(() => props.index ?? order.tier);
const spec = computed<TierFieldSpec>(() => TIER_FIELDS[props.field]);
const tier = computed(() => order.document?.design.tiers[index.value]);
const usual = computed(() => {
  if (props.usual !== undefined) return props.usual;
  return order.document && tier.value ? spec.value.usual?.(order.document.practice, tier.value) : undefined;
});

function change(value: number | null): void {
  order.edit((draft) => {
    const changed = draft.design.tiers[index.value];
    if (changed) setAt(changed, spec.value.path, value);
  });
}
</script>

<template>
  <MeasureField
    v-if="tier"
    :key="`${field}-${index}`"
    :label="spec.label"
    :value="valueAt(tier, spec.path)"
    :usual="usual"
    :limit="spec.limit"
    :optional="spec.optional"
    :percent="spec.percent"
    :pointer="`#/design/tiers/${index}/${spec.path}`"
    :figure="figure"
    :quiet="quiet"
    :large="large"
    @change="change"
  />
</template>
