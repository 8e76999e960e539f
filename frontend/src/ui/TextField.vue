<script setup lang="ts">
/** A name that can be changed where it stands. What is being typed stays, whatever is redrawn meanwhile. */
import { computed, ref, useId } from "vue";
import { useDesk } from "./desk";

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
const wrong = ref("");
const typed = ref<string | null>(null);
const trouble = computed(() => wrong.value || (props.pointer ? desk.complaintAt(props.pointer) : ""));

function finish(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim();
  if (!text && !props.empty) {
    typed.value = text;
    wrong.value = `Type a name of 1 to ${props.most} characters.`;
    return;
  }
  wrong.value = "";
  typed.value = null;
  if (text !== props.value) emit("change", text);
}

function giveUp(): void {
  wrong.value = "";
  typed.value = null;
}
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
      @input="typed = ($event.target as HTMLInputElement).value"
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
