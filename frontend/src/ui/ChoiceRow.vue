<script setup lang="ts" generic="T extends string, C extends { value: T; words: string }">
/** One of a few ways, side by side, by its words or by what the slot shows for it. */
import { useId } from "vue";

defineProps<{ label: string; value: T; choices: readonly C[]; columns?: number }>();
const emit = defineEmits<{ change: [value: T] }>();
const name = useId();
</script>

<template>
  <fieldset :class="{ grid: columns }" :style="columns ? { '--columns': columns } : undefined">
    <legend class="unseen">{{ label }}</legend>
    <label v-for="choice in choices" :key="choice.value" :class="{ chosen: choice.value === value }">
      <input
        type="radio"
        :name="name"
        :value="choice.value"
        :checked="choice.value === value"
        :aria-label="choice.words"
        @change="emit('change', choice.value)"
      />
      <slot :choice="choice">{{ choice.words }}</slot>
    </label>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: flex;
  margin: 0;
  padding: 0;
  border: 1px solid var(--edge);
}

label {
  flex: 1;
  display: grid;
  place-content: center;
  min-height: 44px;
  padding: 0 6px;
  text-align: center;
  cursor: pointer;
}

.grid {
  display: grid;
  grid-template-columns: repeat(var(--columns), 1fr);
  gap: 1px;
}

label + label {
  border-left: 1px solid var(--edge);
}

.grid label {
  min-width: 0;
  padding: 0 2px;
  border: 0;
  outline: 1px solid var(--edge);
}

label:hover {
  background: var(--hover);
}

label.chosen {
  background: var(--tint);
  box-shadow: inset 0 -3px 0 var(--amber-line);
  font-weight: 600;
}

label:has(:focus-visible) {
  outline: 3px solid var(--amber-line);
  outline-offset: 1px;
}

input {
  position: absolute;
  opacity: 0;
}
</style>
