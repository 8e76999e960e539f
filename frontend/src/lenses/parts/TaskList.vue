<script setup lang="ts">
/** Tasks under their headings, in their order, folded to their name; those that guard somebody stand out. */
import { computed } from "vue";
import type { Task } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FractionText from "@/ui/FractionText.vue";

const props = defineProps<{ name: string; tasks: readonly Task[]; headed?: boolean; open?: boolean }>();
const settings = useSettings();

const groups = computed(() => {
  const found: [string, Task[]][] = [];
  for (const task of props.tasks) {
    const last = found.at(-1);
    if (last && last[0] === task.part) last[1].push(task);
    else found.push([task.part ?? "", [task]]);
  }
  return found;
});
</script>

<template>
  <details :open="open">
    <summary>{{ name }}</summary>
    <template v-for="([part, own], group) in groups" :key="group">
      <h4 v-if="headed">{{ part }}</h4>
      <ol>
        <li v-for="task in own" :key="task.id" :class="{ caution: task.caution }">
          <FractionText :text="settings.filled(task.text, task.values ?? {})" />
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
