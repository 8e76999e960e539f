<script setup lang="ts">
/** Which side of something seen from above is its front. */
defineProps<{ x: number; y: number }>();
</script>

<template>
  <path :d="`M${x} ${y}l-7 11h14Z`" />
  <text :x="x + 14" :y="y + 11">front</text>
</template>

<style scoped>
path {
  fill: var(--ink);
}

text {
  fill: var(--soft);
  font: 15px var(--sans);
}
</style>
