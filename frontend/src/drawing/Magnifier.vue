<script setup lang="ts">
/** What lies under the finger, several times as large, in a round glass beside it. */
import { computed } from "vue";
import RoundGlass from "./RoundGlass.vue";

/** The place in the drawing that is looked at, what is drawn there by its id, and how wide the drawing is. */
const props = defineProps<{ x: number; y: number; scene: string; wide: number }>();
const RADIUS = 62;
const NEARER = 4;
const BELOW = 52;
const BESIDE = 8;

const middle = computed((): [number, number] => [
  props.x < props.wide / 2 ? props.wide - RADIUS - BESIDE : RADIUS + BESIDE,
  BELOW + RADIUS,
]);
const move = computed(() => {
  const [x, y] = middle.value;
  return `translate(${x - NEARER * props.x} ${y - NEARER * props.y}) scale(${NEARER})`;
});
</script>

<template>
  <RoundGlass :middle="middle" :radius="RADIUS">
    <use :href="`#${scene}`" :transform="move" />
    <template #over>
      <path class="hair" :d="`M${middle[0] - 12} ${middle[1]}h24M${middle[0]} ${middle[1] - 12}v24`" />
    </template>
  </RoundGlass>
</template>

<style scoped>
.hair {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
}
</style>
