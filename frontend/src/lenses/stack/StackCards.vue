<script setup lang="ts">
/** The cards: the order of stacking, what is taken out again, the way down; and all of them as paper. */
import { computed } from "vue";
import type { Said } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import TemplateLinks from "@/lenses/parts/TemplateLinks.vue";
import { useOrder } from "@/order/order";
import { usePapers } from "@/order/papers";
import FractionText from "@/ui/FractionText.vue";

const order = useOrder();
const settings = useSettings();
const { takePrinted } = usePapers();
const stack = computed(() => order.plan?.stack);

/** Steps under their headings, in their order. */
function grouped(steps: readonly Said[]): [string, Said[]][] {
  const found: [string, Said[]][] = [];
  for (const step of steps) {
    const last = found.at(-1);
    if (last && last[0] === step.part) last[1].push(step);
    else found.push([step.part ?? "", [step]]);
  }
  return found;
}
const words = (name: string): string => {
  const plain = name.replaceAll("_", " ");
  return (plain[0]?.toUpperCase() ?? "") + plain.slice(1);
};
</script>

<template>
  <template v-if="stack">
    <template v-if="stack.left_in && Object.keys(stack.left_in).length">
      <h3>Not eaten, and taken out</h3>
      <FigureRow v-for="(count, name) in stack.left_in" :key="name" :label="words(name)" :figure="count" />
    </template>
    <details v-for="(card, at) in [stack.steps, stack.serving]" :key="at">
      <summary>{{ at ? "How it is taken down" : "Stacking, step by step" }}</summary>
      <template v-for="([part, steps], group) in grouped(card)" :key="group">
        <h4 v-if="!at">{{ part }}</h4>
        <ol>
          <li v-for="(step, number) in steps" :key="number" :class="{ caution: step.caution }">
            <FractionText :text="settings.filled(step.text, step.values ?? {})" />
          </li>
        </ol>
      </template>
    </details>
    <TemplateLinks heading="Cards and templates">
      <button class="act main wide" @click="takePrinted('stacking.pdf')">
        Stacking, travel and serving cards
      </button>
    </TemplateLinks>
  </template>
</template>

<style scoped>
summary {
  min-height: 44px;
  padding-top: 11px;
  border-bottom: 1px solid var(--rule);
  font-weight: 600;
  cursor: pointer;
}

h4 {
  margin: 12px 0 4px;
  font: 600 18px var(--serif);
}

ol {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 8px 0 8px 28px;
}

.caution {
  padding-left: 8px;
  border-left: 4px solid var(--teal);
}

.wide {
  width: 100%;
  margin-top: 8px;
}
</style>
