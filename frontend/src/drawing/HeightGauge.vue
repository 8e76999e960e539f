<script setup lang="ts">
/** The ruler left of the cake, in a person's units, up to its highest point and across to the cake there. */
import { computed } from "vue";
import { useSettings } from "@/kitchen/settings";
import { type Sheet, ticks, xAt, yAt } from "./layout";

const props = defineProps<{
  sheet: Sheet;
  /** Where the ruler stands, in pixels from the left. */
  left: number;
  /** How high the cake is, mm, and how far left of the axis its highest tier reaches. */
  height: number;
  reach: number;
}>();
const settings = useSettings();
/** The last number keeps so far below the height of the cake, which is written there itself. */
const CLEAR = 20;
const marks = computed(() => ticks(props.height, settings.length, props.sheet.scale));
const numbered = computed(() =>
  marks.value.filter((mark) => mark.words && props.height - mark.mm > CLEAR / props.sheet.scale),
);
const top = computed(() => yAt(props.sheet, props.height));
</script>

<template>
  <g class="gauge">
    <path :d="`M${left} ${yAt(sheet, 0)}V${top}`" />
    <path v-for="mark in marks" :key="mark.mm" :d="`M${left} ${yAt(sheet, mark.mm)}h${mark.long ? 12 : 7}`" />
    <text
      v-for="mark in numbered"
      :key="mark.mm"
      :x="left - 6"
      :y="yAt(sheet, mark.mm) + 5"
      text-anchor="end"
    >
      {{ mark.words }}
    </text>
    <path class="dotted" :d="`M${left} ${top}H${xAt(sheet, -reach) - 4}`" />
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}

.dotted {
  stroke-dasharray: 2 4;
}

text {
  fill: var(--soft);
  font: 15px var(--sans);
}
</style>
