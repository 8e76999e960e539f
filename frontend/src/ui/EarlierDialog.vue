<script setup lang="ts">
/** What was saved before, asked for when the dialog opens, to go back to. */
import { ref, watch } from "vue";
import VersionList, { type Version } from "./VersionList.vue";

const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  title: string;
  current?: number;
  currentWords: string;
  empty?: string;
  ask: () => Promise<readonly Version[]>;
  /** Go back to one; gives what went wrong in a sentence, or nothing where it was done. */
  goBack: (number: number) => Promise<string>;
}>();
const versions = ref<readonly Version[]>([]);
const trouble = ref("");

watch(
  open,
  async (now) => {
    if (!now) return;
    trouble.value = "";
    try {
      versions.value = await props.ask();
    } catch {
      trouble.value = "What was saved before cannot be read just now. Close this and try again in a moment.";
    }
  },
  { immediate: true },
);

async function take(number: number): Promise<void> {
  try {
    trouble.value = await props.goBack(number);
    if (!trouble.value) open.value = false;
  } catch {
    trouble.value = "That one cannot be read just now. Nothing was changed.";
  }
}
</script>

<template>
  <ElDialog v-model="open" :title="title" width="560">
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <p v-else-if="empty && !versions.length">{{ empty }}</p>
    <VersionList
      v-else
      :versions="versions"
      :current="current"
      :current-words="currentWords"
      @go-back="take"
    />
  </ElDialog>
</template>
