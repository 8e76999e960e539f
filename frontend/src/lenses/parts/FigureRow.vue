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
  /** What stands there where there is no figure, such as “no price”. */
  none?: string;
}>();
const desk = useDesk();
/** A longer label is shown whole where it is pointed at. */
const LONG = 40;
const lit = computed(() => desk.lit !== "" && `${props.figure?.id}.`.startsWith(`${desk.lit}.`));
</script>

<template>
  <div v-if="figure || none" class="row" :class="{ main, lit }">
    <span class="label" :title="label.length > LONG ? label : undefined">{{ label }}</span>
    <span v-if="!figure" class="none">{{ none }}</span>
    <span v-else class="value">
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

/* A name of any length gives way to the number beside it. */
.label {
  display: -webkit-box;
  overflow: hidden;
  min-width: 0;
  overflow-wrap: anywhere;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
}

.value,
.none {
  flex: none;
  white-space: nowrap;
}

.none {
  color: var(--soft);
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
