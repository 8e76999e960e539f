<script setup lang="ts">
/** One order as a silhouette standing on the shelf, to the scale of all. */
import { computed } from "vue";
import type { Card } from "@/api/types";
import { isDark, wallLines } from "@/drawing/tone";

const props = defineProps<{ card: Card; scale: number }>();
const half = computed(() => (props.card.base_diameter.value / 2) * props.scale);
const height = computed(() => props.card.height.value * props.scale);
const board = computed(() => props.card.base_thickness.value * props.scale);
const tiers = computed(() =>
  props.card.tiers.map((tier) => {
    const heights = tier.outline.map(([, z]) => z * props.scale);
    const [low, high] = [Math.min(...heights), Math.max(...heights)];
    const across = Math.max(...tier.outline.map(([x]) => x)) * props.scale;
    const lines = wallLines(tier, across / props.scale)
      .map((mm) => mm * props.scale)
      .flatMap((x) => [half.value - x, half.value + x]);
    return {
      hex: tier.hex,
      x: half.value - across,
      y: height.value - high,
      width: 2 * across,
      height: high - low,
      lines,
    };
  }),
);
</script>

<template>
  <svg
    :width="2 * half + 2"
    :height="height + 2"
    :viewBox="`-1 -1 ${2 * half + 2} ${height + 2}`"
    aria-hidden="true"
  >
    <rect x="0" :y="height - board" :width="2 * half" :height="board" fill="#cfe3e2" stroke="#2e6e73" />
    <g v-for="(tier, index) in tiers" :key="index">
      <rect
        :x="tier.x"
        :y="tier.y"
        :width="tier.width"
        :height="tier.height"
        :fill="tier.hex"
        stroke="#33241b"
        stroke-width="1.4"
      />
      <path
        v-for="x in tier.lines"
        :key="x"
        :d="`M${x} ${tier.y}v${tier.height}`"
        :stroke="isDark(tier.hex) ? '#fffdf7' : '#33241b'"
        stroke-width="0.8"
        opacity="0.2"
      />
    </g>
  </svg>
</template>
