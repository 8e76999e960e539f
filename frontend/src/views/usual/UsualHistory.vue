<script setup lang="ts">
/** What was the kitchen's usual before, to go back to. */
import { answered, api } from "@/api/client";
import type { Practice } from "@/api/types";
import { usePractice } from "@/kitchen/practice";
import EarlierDialog from "@/ui/EarlierDialog.vue";
import type { Version } from "@/ui/VersionList.vue";
import { useOpened } from "@/ui/opened";

const open = useOpened().opened("earlier");
const usual = usePractice();

const ask = (): Promise<Version[]> => answered(api.GET("/api/practice/history"));

async function goBack(number: number): Promise<string> {
  const params = { path: { number } };
  const found = (await answered(api.GET("/api/practice/history/{number}", { params }))) as Practice;
  return (await usual.change((kept) => Object.assign(kept, found))) ? "" : usual.trouble;
}
</script>

<template>
  <EarlierDialog
    v-model="open"
    title="What was usual before"
    :current="usual.shown?.number"
    current-words="usual now"
    empty="Nothing was changed yet: this is what the program starts with."
    :ask="ask"
    :go-back="goBack"
  />
</template>
