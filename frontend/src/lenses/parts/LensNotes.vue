<script setup lang="ts">
/** What to know at this lens: what is wrong stands at the head of it, the usual cautions at its end. */
import { computed } from "vue";
import type { Check } from "@/api/types";
import { useOrder } from "@/order/order";
import CheckNote from "@/ui/CheckNote.vue";

const props = defineProps<{
  subject: Check["subject"];
  cautions?: boolean;
  /** What is to be known, where it is not the plan that says it; of every tier. */
  checks?: readonly Check[];
}>();
const order = useOrder();
const notes = computed(() =>
  (props.checks ?? order.plan?.checks ?? []).filter(
    (check) =>
      check.subject === props.subject &&
      (check.severity === "caution") === props.cautions &&
      (props.checks !== undefined ||
        props.subject === "order" ||
        check.tier === null ||
        check.tier === order.tier + 1),
  ),
);
</script>

<template>
  <div v-if="notes.length" class="notes" aria-live="polite">
    <CheckNote v-for="check in notes" :key="`${check.code}-${check.tier}-${check.text}`" :check="check" />
  </div>
</template>

<style scoped>
.notes {
  display: grid;
  gap: 8px;
  margin: 14px 0 4px;
}
</style>
