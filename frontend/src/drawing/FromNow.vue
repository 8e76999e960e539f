<script setup lang="ts">
/** An order that should have begun by now, of which nothing is marked, can be planned from now; and back. */
import { computed } from "vue";
import type { Check } from "@/api/types";
import { useMarks } from "@/order/marks";
import ChangesList from "./ChangesList.vue";

const props = defineProps<{ order: string; checks: readonly Check[]; fromNow: boolean; now: Date }>();
const emit = defineEmits<{ changed: [] }>();
const marks = useMarks();
const late = computed(() => props.checks.some((check) => check.code === "clock.late"));
const done = computed(() => (marks.done?.of === props.order ? marks.done : undefined));
const trouble = computed(() => (marks.trouble?.of === props.order ? marks.trouble.words : ""));

async function plan(on: boolean): Promise<void> {
  await marks.fromNow(props.order, on);
  emit("changed");
}
</script>

<template>
  <div v-if="late || fromNow || done" class="from-now">
    <button v-if="late" class="act wide" :disabled="marks.busy" @click="plan(true)">
      Nothing has begun: plan it from now
    </button>
    <p v-else-if="fromNow">
      Planned from now on.
      <button class="act bare" :disabled="marks.busy" @click="plan(false)">
        Count back from its due hour again
      </button>
    </p>
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <div v-if="done" role="status">
      <ChangesList :changes="done.changes" :order="order" :now="now" />
    </div>
  </div>
</template>

<style scoped>
.from-now {
  padding: 6px 0;
}

.wide {
  width: 100%;
  white-space: normal;
}
</style>
