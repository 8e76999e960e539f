<script setup lang="ts">
/** Where coats firm: in the fridge or the freezer. */
import type { Practice } from "@/api/types";
import { FIRM_IN } from "@/kitchen/practice";
import ChoiceRow from "@/ui/ChoiceRow.vue";

defineProps<{ value: Practice["firm_in"] }>();
const PLACES = [
  { value: "fridge", words: "Fridge" },
  { value: "freezer", words: "Freezer" },
] as const;
const emit = defineEmits<{ change: [value: Practice["firm_in"]] }>();
</script>

<template>
  <div class="firm-in">
    <span aria-hidden="true">{{ FIRM_IN }}</span>
    <ChoiceRow :label="FIRM_IN" :value="value" :choices="PLACES" @change="(one) => emit('change', one)" />
  </div>
</template>

<style scoped>
.firm-in {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  justify-content: space-between;
  padding: 4px 0;
}
</style>
