<script setup lang="ts">
/** What hands do now or next, from when, and when they go home: large enough to read at arm's length. */
import { hourWords } from "@/base/time";

const props = defineProps<{
  /** Whose hands, where there are several pairs. */
  whose: string;
  /** What they do, and since when; nothing where everything is done. */
  name?: string;
  start?: string;
  underWay: boolean;
  home?: string;
  now: Date;
}>();
defineEmits<{ select: [] }>();
const when = (): string => {
  const word = props.underWay ? "now" : "next";
  return props.whose ? `${props.whose} ${word}` : `${word.charAt(0).toUpperCase()}${word.slice(1)}`;
};
</script>

<template>
  <div class="band">
    <span class="what">{{ when() }}</span>
    <strong v-if="start" class="big">{{ hourWords(start, now) }}</strong>
    <button v-if="name" class="name" @click="$emit('select')">{{ name }}</button>
    <span v-else class="name">Everything is done</span>
    <p v-if="home" class="home-at">
      Home at <b>{{ hourWords(home, now) }}</b>
    </p>
  </div>
</template>

<style scoped>
.band {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  margin: 0 -20px;
  padding: 8px 20px 10px;
  background: var(--tint);
}

.band + .band {
  border-top: 1px solid var(--paper);
}

.what {
  font-size: 18px;
}

.big {
  font: 600 34px/1.1 var(--serif);
  letter-spacing: -0.02em;
}

.name {
  grid-column: 1 / -1;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  font: 600 20px var(--serif);
  text-align: left;
}

button.name {
  cursor: pointer;
}

button.name:hover {
  text-decoration: underline;
}

.home-at {
  grid-column: 1 / -1;
  color: var(--amber);
}
</style>
