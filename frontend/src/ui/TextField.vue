<script setup lang="ts">
/** A name that can be changed where it stands. What is being typed stays, whatever is redrawn meanwhile. */
import { computed, useId } from "vue";
import { useDesk } from "./desk";
import { useTyped } from "./typed";

const props = defineProps<{
  label: string;
  value: string;
  most: number;
  placeholder?: string;
  empty?: boolean;
  pointer?: string;
}>();
const emit = defineEmits<{ change: [text: string]; focus: [] }>();
const desk = useDesk();
const id = useId();
const { typed, wrong, type, finish, giveUp } = useTyped((text) => {
  const said = text.trim();
  if (!said && !props.empty) return `Type a name of 1 to ${props.most} characters.`;
  if (said !== props.value) emit("change", said);
  return "";
}, props.pointer);
const trouble = computed(() => wrong.value || (props.pointer ? desk.complaintAt(props.pointer) : ""));
</script>

<template>
  <span class="text">
    <label :for="id" class="unseen">{{ label }}</label>
    <input
      :id="id"
      :value="typed ?? value"
      :maxlength="most"
      :placeholder="placeholder"
      autocomplete="off"
      :aria-invalid="trouble !== ''"
      :aria-describedby="trouble ? `${id}-wrong` : undefined"
      @focus="emit('focus')"
      @input="type"
      @change="finish"
      @keydown.esc="giveUp"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
    />
    <span v-if="trouble" :id="`${id}-wrong`" class="says" role="alert">{{ trouble }}</span>
  </span>
</template>

<style scoped>
.text {
  display: grid;
  min-width: 0;
}

input {
  width: 100%;
  padding: 0 4px;
  font-family: var(--serif);
  font-weight: 600;
  font-size: 18px;
}

input::placeholder {
  color: var(--ink);
  opacity: 1;
}

input:hover,
input:focus {
  background: var(--tint);
}

.says {
  color: var(--trouble);
  font-size: 15px;
}
</style>
