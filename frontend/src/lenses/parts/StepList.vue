<script setup lang="ts">
/** Steps of the work under their headings, in their order, folded to their name; those that guard somebody stand out. */
import { computed } from "vue";
import type { Said } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FractionText from "@/ui/FractionText.vue";

const props = defineProps<{ name: string; steps: readonly Said[]; headed?: boolean }>();
const settings = useSettings();

const groups = computed(() => {
  const found: [string, Said[]][] = [];
  for (const step of props.steps) {
    const last = found.at(-1);
    if (last && last[0] === step.part) last[1].push(step);
    else found.push([step.part ?? "", [step]]);
  }
  return found;
});
</script>

<template>
  <details>
    <summary>{{ name }}</summary>
    <template v-for="([part, own], group) in groups" :key="group">
      <h4 v-if="headed">{{ part }}</h4>
      <ol>
        <li v-for="(step, number) in own" :key="number" :class="{ caution: step.caution }">
          <FractionText :text="settings.filled(step.text, step.values ?? {})" />
        </li>
      </ol>
    </template>
  </details>
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
</style>
