<script setup lang="ts">
/** The height gauge of the tier in hand: running marks of every layer, filling, board and coat, left of the axis. */
import { computed } from "vue";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "@/order/order";
import { useDesk } from "@/ui/desk";
import { type Sheet, spread, yAt } from "./layout";

const props = defineProps<{ sheet: Sheet; most: number }>();
const order = useOrder();
const desk = useDesk();
const settings = useSettings();
const ROW = 18;
const planned = computed(() => order.plan?.tiers[order.tier]);
const marks = computed(() => {
  // A drum on its side shows its face: its layers do not lie one above the other here.
  const found = planned.value?.foot ? [] : Object.values(planned.value?.gauge ?? {});
  const bottom = planned.value?.stack.bottom.value ?? 0;
  const at = found.map((mark) => yAt(props.sheet, bottom + mark.up.value));
  const placed = spread(at, ROW, 20, props.most);
  return found.map((mark, index) => ({
    ...mark,
    at: at[index] ?? 0,
    label: placed[index] ?? 0,
    words: settings.words(mark.up),
  }));
});
</script>

<template>
  <g class="marks">
    <template v-for="mark in marks" :key="mark.up.id">
      <path
        :d="`M${sheet.axis} ${mark.at}h-9L${sheet.axis - 17} ${mark.label}h-3`"
        :class="{ lit: desk.lit === mark.up.id }"
      />
      <text
        :x="sheet.axis - 24"
        :y="mark.label + 5"
        text-anchor="end"
        :data-figure="mark.up.id"
        :class="{ lit: desk.lit === mark.up.id }"
        @pointerenter="desk.lit = mark.up.id"
        @pointerleave="desk.lit = ''"
      >
        <tspan class="name">{{ mark.name }}</tspan>
        <tspan dx="9">{{ mark.words }}</tspan>
      </text>
    </template>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}

text {
  fill: var(--ink);
  font: 15px var(--sans);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
  stroke-linejoin: round;
}

.name {
  fill: var(--soft);
}

.lit {
  stroke-width: 2.4;
}

text.lit {
  fill: var(--amber);
  stroke-width: 4px;
}
</style>
