<script setup lang="ts">
/** A part that is seldom asked for: folded to its name and what is decided of it, open where something is. */
import { ref } from "vue";

const props = defineProps<{ name: string; says: string; open: boolean }>();
/** What a person opened stays open, and what they closed stays closed, while they are here. */
const unfolded = ref(props.open);
</script>

<template>
  <details :open="unfolded" @toggle="unfolded = ($event.target as HTMLDetailsElement).open">
    <summary>
      <h3>{{ name }}</h3>
      <span v-if="!unfolded">{{ says }}</span>
    </summary>
    <slot v-if="unfolded" />
  </details>
</template>

<style scoped>
summary {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  min-height: 48px;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
  list-style: none;
}

summary::after {
  content: "+";
  margin-left: auto;
  color: var(--amber);
  font-size: 22px;
}

details[open] summary::after {
  content: "−";
}

summary span {
  color: var(--soft);
}

/* The panel gives every heading a margin; this one stands on a line with what is decided. */
summary > h3:first-child {
  margin: 0;
}
</style>
