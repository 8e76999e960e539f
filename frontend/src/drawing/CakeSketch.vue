<script setup lang="ts">
/** A small half-section of any plan, to see what a cake would come to: no words, no hands on it. */
import { computed } from "vue";
import type { Plan } from "@/api/types";
import { fit, path, shifted } from "./layout";
import { hexOf, leftOf } from "./tone";

const props = defineProps<{ plan: Plan; width: number; height: number; label: string }>();
const MARGIN = 8;
const sheet = computed(() =>
  fit(props.plan.stack.base_diameter.value, props.plan.stack.height.value, {
    width: props.width,
    height: props.height,
    left: MARGIN,
    right: MARGIN,
    top: MARGIN,
    bottom: MARGIN,
  }),
);
const board = computed(() => props.plan.section.parts.find((part) => part.place === "stack"));
</script>

<template>
  <svg class="sketch" :width="width" :height="height" role="img" :aria-label="label">
    <path v-if="board" :d="path(board.outline, sheet, true)" class="foil" />
    <path
      v-for="tier in plan.section.tiers"
      :key="tier.place"
      :d="path(leftOf(tier), sheet, true)"
      :fill="hexOf(tier.paint)"
      class="outside"
      :transform="shifted(tier.off, sheet)"
    />
    <path
      v-for="(part, at) in plan.section.parts"
      :key="at"
      :d="path(part.outline, sheet)"
      :fill="hexOf(part.paint)"
      class="part"
      :transform="shifted(part.off, sheet)"
    />
  </svg>
</template>

<style scoped>
.sketch {
  display: block;
}

.foil {
  fill: var(--foil);
}

.foil,
.outside,
.part {
  stroke: var(--ink);
  stroke-width: 0.8;
}

.outside {
  stroke-width: 1.4;
}
</style>
