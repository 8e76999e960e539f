<script setup lang="ts">
/** A text that is changed where it stands; what cannot be taken stays, with a sentence below it. */
import { ref, useId, watch } from "vue";
import { useTyped } from "@/ui/typed";

const props = defineProps<{
  label: string;
  value: string;
  placeholder?: string;
  wide?: boolean;
  take: (text: string) => Promise<string> | string;
}>();
const id = useId();
const { typed, wrong, type, finish, giveUp } = useTyped((text) =>
  text === props.value ? "" : props.take(text),
);
const input = ref<HTMLInputElement>();

watch(
  () => props.value,
  () => {
    // What is being typed stays, whatever is kept elsewhere meanwhile.
    if (!wrong.value && document.activeElement !== input.value) typed.value = null;
  },
);
</script>

<template>
  <span class="plain" :class="{ wide }">
    <input
      :id="id"
      ref="input"
      type="text"
      autocomplete="off"
      :value="typed ?? value"
      :placeholder="placeholder"
      :aria-label="label"
      :aria-invalid="wrong !== ''"
      :aria-describedby="wrong ? `${id}-wrong` : undefined"
      @input="type"
      @change="finish"
      @keydown.enter.prevent="($event.target as HTMLInputElement).blur()"
      @keydown.esc="giveUp"
    />
    <span v-if="wrong" :id="`${id}-wrong`" class="says" role="alert">{{ wrong }}</span>
  </span>
</template>

<style scoped>
.plain {
  display: grid;
}

input {
  width: 130px;
  padding: 0 4px;
  font: 600 18px var(--serif);
}

.wide input {
  width: 100%;
}

input:hover,
input:focus {
  background: var(--tint);
}

input[aria-invalid="true"] {
  border-color: var(--trouble);
  background: var(--blush);
}

.says {
  max-width: 260px;
  color: var(--trouble);
  font-size: 15px;
}
</style>
