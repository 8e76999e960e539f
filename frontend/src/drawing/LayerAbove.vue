<script setup lang="ts">
/** The layer of a carved tier that is looked at, from above: as it is cut at its lower and at its upper face. */
import { computed } from "vue";
import { useSettings } from "@/kitchen/settings";
import { useCarving } from "@/order/carving";
import FrontMark from "./FrontMark.vue";
import { closed } from "./layout";

const props = defineProps<{ wide: number; high: number }>();
const { order, slice } = useCarving();
const settings = useSettings();
const HEAD = 30;
const EDGE = 26;
const BELOW = 22;

const finished = computed(() => order.plan?.section.tiers[order.tier]?.seen_from_above ?? []);
const reach = computed(() => ({
  across: Math.max(1, ...finished.value.map(([right = 0]) => Math.abs(right))),
  along: Math.max(1, ...finished.value.map(([, back = 0]) => Math.abs(back))),
}));
const scale = computed(() =>
  Math.min(
    (props.wide / 2 - EDGE) / reach.value.across,
    (props.high - HEAD - 2 * EDGE - BELOW) / 2 / reach.value.along,
  ),
);
const axis = computed(() => ({ x: props.wide / 2, y: (props.high + HEAD - BELOW) / 2 }));
const x = (mm: number): number => axis.value.x + mm * scale.value;
const y = (mm: number): number => axis.value.y - mm * scale.value;
const outline = (rings: readonly (readonly (readonly number[])[])[] | undefined): string =>
  (rings ?? []).map((ring) => closed(ring, x, y)).join("");
const says = computed(() => {
  if (!slice.value) return "";
  const { number, wide, long } = slice.value;
  return `Layer ${number}: ${settings.words(wide)} × ${settings.words(long)}`;
});
</script>

<template>
  <svg :width="wide" :height="high" role="img" :aria-label="`${says}, from above`">
    <text x="16" y="20">{{ says }}</text>
    <path class="outer" :d="outline([finished])" />
    <path class="bottom" :d="outline(slice?.bottom)" />
    <path class="top" :d="outline(slice?.top)" />
    <path class="cross" :d="`M${axis.x - 7} ${axis.y}h14M${axis.x} ${axis.y - 7}v14`" />
    <FrontMark :x="axis.x" :y="y(-reach.along) + 4" />
    <path class="bottom" :d="`M16 ${high - 15}h26`" />
    <text x="50" :y="high - 10">lower face</text>
    <path class="top" :d="`M${wide / 2 + 16} ${high - 15}h26`" />
    <text :x="wide / 2 + 50" :y="high - 10">upper face</text>
  </svg>
</template>

<style scoped>
text {
  fill: var(--soft);
  font: 15px var(--sans);
}

.outer {
  fill: none;
  stroke: var(--soft);
  stroke-dasharray: 3 4;
}

path {
  fill-rule: evenodd;
}

.bottom {
  fill: var(--sponge);
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linejoin: round;
}

.top {
  fill: none;
  stroke: var(--crumb);
  stroke-width: 1.8;
  stroke-dasharray: 8 5;
}

.cross {
  stroke: var(--ink);
}
</style>
