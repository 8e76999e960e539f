<script setup lang="ts" generic="T extends string | number, C extends { value: T }">
/** One of several, a line each with what the slot shows for it. */
import { useId } from "vue";

defineProps<{ label: string; value: T | undefined; choices: readonly C[] }>();
const emit = defineEmits<{ change: [value: T] }>();
const name = useId();
</script>

<template>
  <div role="radiogroup" :aria-label="label">
    <label v-for="one in choices" :key="one.value" :class="{ chosen: one.value === value }">
      <input
        type="radio"
        class="unseen"
        :name="name"
        :value="one.value"
        :checked="one.value === value"
        @change="emit('change', one.value)"
      />
      <slot :choice="one" />
    </label>
  </div>
</template>

<style scoped>
label {
  display: grid;
  grid-template-columns: 40px 1fr;
  align-items: center;
  min-height: 44px;
  padding: 6px 10px;
  border-bottom: 1px solid var(--rule);
  border-left: 4px solid transparent;
  cursor: pointer;
}

label:hover {
  background: var(--hover);
}

.chosen {
  border-left-color: var(--amber-line);
  background: var(--tint);
}

label:has(:focus-visible) {
  outline: 3px solid var(--amber-line);
  outline-offset: -3px;
}
</style>
