<script setup lang="ts" generic="T extends string | number | boolean | null">
/** One of a few words or numbers, with its label, on a line of its own. */
const props = defineProps<{ label: string; value: T; choices: readonly { value: T; words: string }[] }>();
const emit = defineEmits<{ change: [value: T] }>();

function choose(event: Event): void {
  const one = props.choices[(event.target as HTMLSelectElement).selectedIndex];
  if (one) emit("change", one.value);
}
</script>

<template>
  <label class="pick">
    <span>{{ label }}</span>
    <select :value="String(value)" @change="choose">
      <option v-for="one in choices" :key="String(one.value)" :value="String(one.value)">
        {{ one.words }}
      </option>
    </select>
  </label>
</template>

<style scoped>
.pick {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 43px;
  border-bottom: 1px solid var(--rule);
}

span {
  flex: 1 1 0;
  min-width: min-content;
}

select {
  max-width: 80%;
  font: 600 18px var(--serif);
  text-align-last: right;
}
</style>
