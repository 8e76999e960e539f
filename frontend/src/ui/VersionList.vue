<script setup lang="ts">
/** What was saved before, newest first, each to go back to. */
import { stampWords } from "@/base/time";

export interface Version {
  number: number;
  saved_at: string;
  aside: boolean;
  title?: string;
}

defineProps<{ versions: readonly Version[]; current?: number; currentWords?: string }>();
const emit = defineEmits<{ goBack: [number: number] }>();
</script>

<template>
  <ul>
    <li v-for="version in versions" :key="version.number">
      <span>
        <b>{{ version.number }}</b> {{ version.title }}
        <span class="unit"
          >{{ stampWords(new Date(version.saved_at)) }}{{ version.aside ? ", kept aside" : "" }}</span
        >
      </span>
      <span v-if="version.number === current" class="unit">{{ currentWords }}</span>
      <button v-else class="act" @click="emit('goBack', version.number)">Go back to it</button>
    </li>
  </ul>
</template>

<style scoped>
ul {
  position: relative;
  max-height: 50vh;
  overflow: auto;
}

li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 48px;
  border-bottom: 1px solid var(--rule);
}

b {
  display: inline-block;
  min-width: 2.4ch;
  font-family: var(--serif);
}
</style>
