<script setup lang="ts">
/** A figure with its words, on a line of its own. */
import { computed } from "vue";
import type { Figure } from "@/api/types";
import { useDesk } from "@/ui/desk";
import FigureValue from "@/ui/FigureValue.vue";

const props = defineProps<{
  label: string;
  figure: Figure | null | undefined;
  main?: boolean;
  after?: string;
}>();
const desk = useDesk();
const lit = computed(() => desk.lit !== "" && `${props.figure?.id}.`.startsWith(`${desk.lit}.`));
</script>

<template>
  <div v-if="figure" class="row" :class="{ main, lit }">
    <span class="label">{{ label }}</span>
    <span>
      <FigureValue :figure="figure" :label="label" :large="main" />
      <span v-if="after" class="unit">{{ after }}</span>
    </span>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 43px;
  border-bottom: 1px solid var(--rule);
}

.row.main {
  min-height: 66px;
  margin: 0 -20px;
  padding: 0 20px;
  border: 0;
  background: var(--tint);
}

.row.lit:not(.main) {
  background: var(--hover);
}
</style>
