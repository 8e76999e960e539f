<script setup lang="ts">
/** What a mark or a move changes: the steps that move, from when to when, and what goes wrong by it. */
import { computed } from "vue";
import type { Changes } from "@/api/types";
import { hourWords } from "@/base/time";
import CheckNote from "@/ui/CheckNote.vue";

const props = defineProps<{
  changes: Changes;
  /** The order that is looked at: its title need not be said. */
  order: string;
  now: Date;
}>();
const MOST = 6;
const shown = computed(() => props.changes.moved.slice(0, MOST));
const more = computed(() => props.changes.moved.length - shown.value.length);
</script>

<template>
  <div>
    <template v-for="one in changes.broken" :key="`${one.title} ${one.check.text}`">
      <p v-if="changes.moved.some(({ order: id }) => id !== order)" class="title">{{ one.title }}</p>
      <CheckNote :check="one.check" />
    </template>
    <p v-if="!changes.moved.length">No step moves.</p>
    <template v-else>
      <p>{{ changes.moved.length === 1 ? "1 step moves:" : `${changes.moved.length} steps move:` }}</p>
      <ul>
        <li v-for="one in shown" :key="`${one.order} ${one.name} ${one.start}`">
          <span>{{ one.order === order ? "" : `${one.title}: ` }}{{ one.name }}</span>
          <span>
            <b>{{ hourWords(one.would_start, now) }}</b>, was {{ hourWords(one.start, now) }}
          </span>
        </li>
      </ul>
      <p v-if="more">and {{ more === 1 ? "1 more step" : `${more} more steps` }}.</p>
    </template>
  </div>
</template>

<style scoped>
ul {
  margin: 2px 0 4px;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  justify-content: space-between;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}

.title {
  margin-top: 6px;
  font-weight: 600;
}
</style>
