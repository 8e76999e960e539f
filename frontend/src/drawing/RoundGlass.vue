<script setup lang="ts">
/** A round glass: what is drawn in it is cut off at its rim. */
import { useId } from "vue";

defineProps<{ middle: readonly [number, number]; radius: number }>();
const id = useId();
</script>

<template>
  <g class="glass" aria-hidden="true">
    <clipPath :id="id"><circle :cx="middle[0]" :cy="middle[1]" :r="radius" /></clipPath>
    <circle class="ground" :cx="middle[0]" :cy="middle[1]" :r="radius" />
    <g :clip-path="`url(#${id})`"><slot /></g>
    <circle class="rim" :cx="middle[0]" :cy="middle[1]" :r="radius" />
    <slot name="over" />
  </g>
</template>

<style scoped>
.glass {
  pointer-events: none;
}

.ground {
  fill: var(--paper);
}

.rim {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}
</style>
