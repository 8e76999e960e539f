<script setup lang="ts">
/** A button that asks for a file, and hands it on; the same file may be asked for again. */
defineProps<{ words: string; accept: string }>();
const emit = defineEmits<{ file: [file: File] }>();

function chosen(event: Event): void {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = "";
  if (file) emit("file", file);
}
</script>

<template>
  <label class="act">
    {{ words }}
    <input type="file" :accept="accept" @change="chosen" />
  </label>
</template>

<style scoped>
label {
  display: inline-grid;
  place-content: center;
}

label:has(:focus-visible) {
  outline: 3px solid var(--amber-line);
}

input {
  position: absolute;
  width: 1px;
  opacity: 0;
}
</style>
