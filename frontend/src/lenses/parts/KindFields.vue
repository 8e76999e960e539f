<script setup lang="ts">
/** The numbers and choices that a part of the tier in hand asks for, a line each; `only` some of them. */
import { computed } from "vue";
import type { Choice } from "@/api/types";
import { kindAt, partAt, pickAt, setAt } from "@/order/kinds";
import TierField from "@/order/TierField.vue";
import PickField from "@/ui/PickField.vue";
import { useTier } from "./tier";

const props = defineProps<{
  /** The path of the part below the tier. */
  part: string;
  only?: readonly string[];
  /** What to do with another value, where it is not simply set in the tier. */
  take?: (field: string, value: unknown) => void;
}>();
const { tier, change } = useTier();
const kind = computed(() => (tier.value ? kindAt(tier.value, props.part) : undefined));
const held = computed(() => (tier.value ? partAt(tier.value, props.part) : null));
const among = (field: string): boolean => props.only?.includes(field) ?? true;
const asks = computed(() => kind.value?.asks.filter((one) => among(one.field)) ?? []);
const picks = computed(() => kind.value?.picks.filter((one) => among(one.field)) ?? []);
const chosen = (field: string): Choice["value"] => (held.value?.[field] ?? null) as Choice["value"];
function set(path: string, value: unknown): void {
  if (props.take) props.take(path, value);
  else change((tier) => pickAt(tier, path) && setAt(tier, path, value));
}
const at = (field: string): string => (props.part ? `${props.part}/${field}` : field);
</script>

<template>
  <div v-if="asks.length" class="rows">
    <TierField v-for="one in asks" :key="one.field" :field="at(one.field)" :take="take" />
  </div>
  <PickField
    v-for="one in picks"
    :key="one.field"
    :label="one.words"
    :value="chosen(one.field)"
    :choices="one.choices"
    @change="(value) => set(at(one.field), value)"
  />
</template>
