<script setup lang="ts">
/** What a word means, drawn: the part of it that is meant is in amber. */
import { computed } from "vue";
import { sceneOf } from "./wordScenes";
import type { Scene } from "./words";

const props = defineProps<{ scene: Scene; part: string }>();
/** What is meant is drawn last, so that nothing lies over it. */
const parts = computed(() => {
  const all = sceneOf(props.scene);
  return [...all.filter((one) => one.part !== props.part), ...all.filter((one) => one.part === props.part)];
});
</script>

<template>
  <svg viewBox="0 0 96 72" width="96" height="72" aria-hidden="true">
    <path v-for="one in parts" :key="one.part" :d="one.d" :class="{ meant: one.part === part }" />
  </svg>
</template>

<style scoped>
path {
  fill: var(--paper);
  stroke: var(--edge);
  stroke-width: 1;
}

.meant {
  fill: #e3a63a;
  stroke: var(--ink);
  stroke-width: 1.6;
}
</style>
