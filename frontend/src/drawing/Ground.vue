<script setup lang="ts">
/** What the cake stands on: the table with its shadow, and the base board, foil outside and cut on the right. */
import type { Part } from "@/api/types";
import { path, type Sheet, xAt, yAt } from "./layout";

defineProps<{ sheet: Sheet; board: Part; half: number }>();
/** The table is seen so many pixels beyond the board. */
const BEYOND = 64;
</script>

<template>
  <g class="ground">
    <ellipse
      :cx="sheet.axis"
      :cy="yAt(sheet, 0) + 1"
      :rx="half * sheet.scale * 1.12"
      :ry="Math.min(16, 5 + half * sheet.scale * 0.04)"
      fill="url(#on-table)"
    />
    <path class="table" :d="`M${xAt(sheet, -half) - BEYOND} ${yAt(sheet, 0)}H${xAt(sheet, half) + BEYOND}`" />
    <path :d="path(board.outline, sheet, true)" fill="url(#foil)" class="foil" />
    <path
      class="glint"
      :d="`M${xAt(sheet, -half) + 3} ${yAt(sheet, board.outline[2]?.[1] ?? 0) + 2.5}H${sheet.axis}`"
    />
  </g>
</template>

<style scoped>
.table {
  stroke: var(--ink);
  stroke-width: 1.4;
}

.foil {
  stroke: var(--ink);
  stroke-width: 2;
}

.glint {
  stroke: #fff;
  stroke-width: 1.4;
}
</style>
