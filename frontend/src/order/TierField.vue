<script setup lang="ts">
/** One number of one tier, editable; in the panel with its label, in the drawing without. */
import { computed } from "vue";
import MeasureField from "@/ui/MeasureField.vue";
import { askAt, ownOutline, setAt, usualAt, valueAt } from "./kinds";
import { type AlterTier, useOrder } from "./order";
import { useOffered } from "./whatIf";

const props = defineProps<{
  /** Its path below the tier. */
  field: string;
  index?: number;
  figure?: string;
  quiet?: boolean;
  large?: boolean;
  /** What to do with another value, where it is not simply set. */
  take?: (field: string, value: number | null) => void;
}>();
const order = useOrder();
const index = computed(() => props.index ?? order.tier);
const tier = computed(() => order.document?.design.tiers[index.value]);
const ask = computed(() => (tier.value ? askAt(tier.value, props.field) : undefined));
/** The figure it becomes, as the row of its kind says. */
const figure = computed(() => {
  const own = props.index === undefined ? ask.value?.figure : null;
  return props.figure ?? (own ? `${order.path}.${own}` : undefined);
});
const label = computed(() => {
  const whole = tier.value && props.field === "tin_diameter_mm" && ownOutline(tier.value);
  return whole ? "Wide, all of it" : (ask.value?.words ?? "");
});
const usual = computed(() =>
  order.document && tier.value ? usualAt(tier.value, props.field, order.document.practice) : undefined,
);

if (!props.quiet && !props.take && props.index === undefined)
  useOffered(props.field, () => ({
    key: props.field,
    label: label.value,
    limit: ask.value?.limit ?? "",
    percent: ask.value?.percent ?? false,
    value: tier.value ? valueAt(tier.value, props.field) : null,
    usual: usual.value,
    attempt,
    keep: change,
  }));

/** What sets the field, in every tier that has it where every tier is changed; some sizes are one tier's alone. */
const setting = (value: number | null): AlterTier => {
  const [own, alone] = [index.value, ask.value?.one_tier];
  return (tier, _, at) => {
    if (at === own || (!alone && askAt(tier, props.field))) setAt(tier, props.field, value);
  };
};

function attempt(value: number): void {
  if (!props.take) order.tryTier(index.value, setting(value));
}

function change(value: number | null): void {
  if (props.take) {
    props.take(props.field, value);
    return;
  }
  order.editTier(index.value, setting(value));
}
</script>

<template>
  <MeasureField
    v-if="tier && ask"
    :key="`${field}-${index}`"
    :label="label"
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
    @trying="attempt"
    @tried="order.endTrial"
  />
</template>
