<script setup lang="ts">
/** What a figure would be if a number that was put in were another: seen on the whole cake, then kept or left. */
import { computed, onBeforeUnmount, ref, watch } from "vue";
import type { Figure } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "@/order/order";
import { type WhatIf, whatIfs } from "@/order/whatIf";
import MeasureField from "@/ui/MeasureField.vue";
import PickField from "@/ui/PickField.vue";

const props = defineProps<{ figure: Figure; label: string }>();
const order = useOrder();
const settings = useSettings();
const root = ref<HTMLElement>();
const chosen = ref("");
const wanted = ref<number | null>(null);

const offered = computed(whatIfs);
const choices = computed(() => [
  { value: "", words: "nothing" },
  ...offered.value.map((one) => ({ value: one.key, words: one.label })),
]);
const one = computed<WhatIf | undefined>(() => offered.value.find((each) => each.key === chosen.value));
const before = settings.words(props.figure);
/** The figure as the plan on the screen has it now. */
const now = computed(() => {
  const found = order.plan ? figureAt(order.plan, props.figure.id) : null;
  return found ? settings.words(found) : "";
});

function figureAt(node: unknown, id: string): Figure | null {
  if (typeof node !== "object" || node === null) return null;
  if ("id" in node && "rule" in node) return node.id === id ? (node as Figure) : null;
  for (const part of Object.values(node)) {
    const found = figureAt(part, id);
    if (found) return found;
  }
  return null;
}

function attempt(value: number | null): void {
  wanted.value = value;
  if (value !== null) one.value?.attempt(value);
}

function keep(): void {
  const [taken, value] = [one.value, wanted.value];
  leave();
  taken?.keep(value);
}

/** The buttons go; the hands are where they can ask again or close it. */
function leave(): void {
  chosen.value = "";
  root.value?.querySelector("select")?.focus();
}

watch(chosen, () => {
  wanted.value = null;
  order.endTrial();
});
onBeforeUnmount(() => order.endTrial());
</script>

<template>
  <div v-if="choices.length > 1" ref="root" class="what-if">
    <PickField
      label="What if I changed"
      :value="chosen"
      :choices="choices"
      @change="(key) => (chosen = key)"
    />
    <template v-if="one">
      <MeasureField
        :key="one.key"
        :label="one.label"
        :limit="one.limit"
        :percent="one.percent"
        :value="wanted ?? one.value"
        :usual="one.usual"
        @trying="attempt"
        @change="attempt"
      />
      <p role="status">
        {{ label }}: <strong>{{ before }}</strong>
        <template v-if="wanted !== null && now"
          >, then <strong>{{ now }}</strong></template
        >
      </p>
      <div class="acts">
        <button class="act main" :disabled="wanted === null" @click="keep">Keep it</button>
        <button class="act" @click="leave">Leave it as it was</button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.what-if {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding-top: 6px;
  border-top: 1px solid var(--rule);
}

.what-if :deep(select) {
  min-width: 0;
}

strong {
  font-family: var(--serif);
}

.acts {
  display: flex;
  gap: 8px;
}
</style>
