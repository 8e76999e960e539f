<script setup lang="ts">
/** What was the kitchen's usual before, to go back to. */
import { ref, watch } from "vue";
import { answered, api } from "@/api/client";
import type { Schemas } from "@/api/client";
import type { Practice } from "@/api/types";
import { usePractice } from "@/shared/practice";
import VersionList from "@/shared/VersionList.vue";

const open = defineModel<boolean>({ required: true });
const usual = usePractice();
const earlier = ref<Schemas["EarlierPractice"][]>([]);
const trouble = ref("");

watch(open, async (now) => {
  if (!now) return;
  trouble.value = "";
  try {
    earlier.value = await answered(api.GET("/api/practice/history"));
  } catch {
    trouble.value = "What was usual before cannot be read just now. Close this and try again in a moment.";
  }
});

async function goBack(number: number): Promise<void> {
  try {
    const params = { path: { number } };
    const found = (await answered(api.GET("/api/practice/history/{number}", { params }))) as Practice;
    if (await usual.change((kept) => Object.assign(kept, found))) open.value = false;
    else trouble.value = usual.trouble;
  } catch {
    trouble.value = "That one cannot be read just now. Nothing was changed.";
  }
}
</script>

<template>
  <ElDialog v-model="open" title="What was usual before" width="560">
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <p v-else-if="!earlier.length">Nothing was changed yet: this is what the program starts with.</p>
    <VersionList
      v-else
      :versions="earlier"
      :current="usual.shown?.number"
      current-words="usual now"
      @go-back="goBack"
    />
  </ElDialog>
</template>
