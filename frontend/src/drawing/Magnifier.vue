<script setup lang="ts">
/** What lies under the finger, several times as large, in a round glass beside it. */
import { computed, useId } from "vue";

/** The place in the drawing that is looked at, what is drawn there by its id, and how wide the drawing is. */
const props = defineProps<{ x: number; y: number; scene: string; wide: number }>();
const RADIUS = 62;
const NEARER = 4;
const BELOW = 52;
const BESIDE = 8;

const id = useId();
const middle = computed(() => ({
  x: props.x < props.wide / 2 ? props.wide - RADIUS - BESIDE : RADIUS + BESIDE,
  y: BELOW + RADIUS,
}));
const move = computed(() => {
  const { x, y } = middle.value;
  return `translate(${x - NEARER * props.x} ${y - NEARER * props.y}) scale(${NEARER})`;
});
</script>

<template>
  <g class="glass" aria-hidden="true">
    <clipPath :id="id"><circle :cx="middle.x" :cy="middle.y" :r="RADIUS" /></clipPath>
    <circle class="ground" :cx="middle.x" :cy="middle.y" :r="RADIUS" />
    <g :clip-path="`url(#${id})`"><use :href="`#${scene}`" :transform="move" /></g>
    <circle class="rim" :cx="middle.x" :cy="middle.y" :r="RADIUS" />
    <path class="hair" :d="`M${middle.x - 12} ${middle.y}h24M${middle.x} ${middle.y - 12}v24`" />
  </g>
</template>

<style scoped>
.glass {
  pointer-events: none;
}

.ground {
  fill: var(--paper);
}

.rim,
.hair {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.hair {
  stroke-width: 1;
}
</style>
