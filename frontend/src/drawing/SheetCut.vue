<script setup lang="ts">
/** A layer of cake out of a tin, from above, and what is cut from it side by side, to scale and by number. */
import { computed } from "vue";
import type { Plan } from "@/api/types";
import { boundsOf } from "@/base/polygon";
import { closed } from "./layout";

type Tin = Plan["carved"][string]["tins"][string];
const props = defineProps<{ cut: Tin["beside"][string]; says: string }>();
const WIDE = 300;
/** The long side lies across, where the screen has most room. */
const scale = computed(() => WIDE / props.cut.high.value);
const tall = computed(() => props.cut.wide.value * scale.value);
const drawn = (mm: number): number => mm * scale.value;
const slices = computed(() =>
  props.cut.edges.map((rings, at) => {
    const turned = rings.map((ring) => ring.map(([x = 0, y = 0]) => [y, x] as const));
    const { left, right, low, high } = boundsOf(turned[0] ?? []);
    return {
      number: props.cut.layers[at],
      d: turned.map((ring) => closed(ring, drawn, drawn)).join(""),
      x: drawn((left + right) / 2),
      y: drawn((low + high) / 2),
    };
  }),
);
</script>

<template>
  <svg :viewBox="`-1 -1 ${WIDE + 2} ${tall + 2}`" role="img" :aria-label="says">
    <circle v-if="cut.round" class="sheet" :cx="WIDE / 2" :cy="tall / 2" :r="WIDE / 2" />
    <rect v-else class="sheet" :width="WIDE" :height="tall" />
    <g v-for="one in slices" :key="one.number">
      <path class="slice" :d="one.d" />
      <text :x="one.x" :y="one.y + 7">{{ one.number }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 302px;
  max-height: 240px;
}

.sheet {
  fill: none;
  stroke: var(--soft);
  stroke-dasharray: 4 4;
}

.slice {
  fill: var(--sponge);
  fill-rule: evenodd;
  stroke: var(--ink);
  stroke-width: 1.6;
}

text {
  fill: var(--ink);
  font: 600 20px var(--serif);
  text-anchor: middle;
}
</style>
