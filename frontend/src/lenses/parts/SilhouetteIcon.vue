<script setup lang="ts">
/** A silhouette in a box of 24 by 24; dashed where it stands for what is cut out. */
defineProps<{ icon: string | undefined; out?: boolean }>();
</script>

<template>
  <svg width="30" height="30" viewBox="0 0 24 24" aria-hidden="true">
    <path :d="icon" :class="{ out }" />
  </svg>
</template>

<style scoped>
path {
  fill: var(--sponge);
  stroke: var(--ink);
  stroke-width: 1.4;
}

.out {
  fill: none;
  stroke-dasharray: 3 2;
}
</style>
