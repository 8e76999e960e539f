<script setup lang="ts">
/** What is wrong with a whole that the kitchen keeps: it cannot be reached, or this version cannot read the newest. */
import type { Complaint } from "@/api/client";
import UnreadWords from "./UnreadWords.vue";

const props = defineProps<{
  whole: { trouble: string; unread: string; complaints: readonly Complaint[]; open: () => Promise<void> };
  /** Whether the page says what is wrong with a field beside that field. */
  atFields?: boolean;
}>();
const shown = (): boolean =>
  Boolean(props.whole.trouble) && !(props.atFields && props.whole.complaints.length);
</script>

<template>
  <p v-if="shown()" class="banner" role="alert">
    {{ whole.trouble }} <button class="act" @click="whole.open()">Look again</button>
  </p>
  <UnreadWords :words="whole.unread" />
</template>

<style scoped>
.banner {
  margin-bottom: 14px;
  padding: 10px 14px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}
</style>
