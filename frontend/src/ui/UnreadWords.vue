<script setup lang="ts">
/** What the kitchen saved last and this version cannot read; nothing where it can. */
defineProps<{ words: string }>();
</script>

<template>
  <p v-if="words" class="unread" role="alert">
    {{ words }} What is shown is the newest that can be read; nothing is lost.
  </p>
</template>

<style scoped>
.unread {
  margin-bottom: 14px;
  padding: 10px 14px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}
</style>
