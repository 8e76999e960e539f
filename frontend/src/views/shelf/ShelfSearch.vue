<script lang="ts">
/** What is looked for on the shelf: words of a title, and the days it is due between. */
export interface Asking {
  words: string;
  first: string;
  last: string;
}
</script>

<script setup lang="ts">
import { reactive, watch } from "vue";

const props = defineProps<{ count: number; asked: Asking }>();
const emit = defineEmits<{ look: [asking: Asking] }>();
const WAIT_MS = 250;
const typed = reactive({ ...props.asked });
let waiting: ReturnType<typeof setTimeout> | undefined;

watch(
  () => props.asked,
  (asked) => Object.assign(typed, asked),
);

function soon(): void {
  clearTimeout(waiting);
  waiting = setTimeout(() => emit("look", { ...typed }), WAIT_MS);
}
</script>

<template>
  <form class="search" role="search" @submit.prevent="emit('look', { ...typed })">
    <label>
      <span>Title</span>
      <input v-model="typed.words" type="search" maxlength="80" @input="soon" />
    </label>
    <label>
      <span>Due from</span>
      <input v-model="typed.first" type="date" min="1970-01-01" max="2200-01-01" @change="soon" />
    </label>
    <label>
      <span>to</span>
      <input v-model="typed.last" type="date" min="1970-01-01" max="2200-01-01" @change="soon" />
    </label>
    <span class="count" role="status">{{ count === 1 ? "1 order" : `${count} orders` }}</span>
  </form>
</template>

<style scoped>
.search {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  align-items: end;
  margin-bottom: 26px;
}

label {
  display: grid;
  gap: 4px;
}

label span {
  color: var(--soft);
}

input {
  min-height: 44px;
  padding: 0 10px;
  background: var(--panel);
  font: inherit;
}

.count {
  padding-bottom: 10px;
}
</style>
