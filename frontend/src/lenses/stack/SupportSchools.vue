<script setup lang="ts">
/** How many supports each rule asks for, which is taken, and why they are so many and stand where they do. */
import { computed } from "vue";
import type { JointPlan } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import FractionText from "@/ui/FractionText.vue";

const props = defineProps<{ joint: JointPlan }>();
const settings = useSettings();
const SCHOOLS: Record<string, string> = {
  inches: "One fewer than its inches",
  band: "Three, or four to six",
  load: "By the load",
};
const rows = computed(() =>
  Object.entries(props.joint.schools).map(([name, figure]) => ({
    name,
    figure,
    words: SCHOOLS[name] ?? name,
    taken: props.joint.taken === name,
  })),
);
</script>

<template>
  <div v-for="row in rows" :key="row.name" class="school" :class="{ taken: row.taken }">
    <FigureRow :label="row.taken ? `${row.words}: taken` : row.words" :figure="row.figure" />
  </div>
  <FigureRow v-if="!joint.taken" label="As you set it" :figure="joint.count" />
  <p v-for="one in joint.told" :key="one.text" class="told">
    <FractionText :text="settings.filled(one.text, one.values ?? {})" />
  </p>
</template>

<style scoped>
.taken {
  font-weight: 600;
}

.told {
  padding: 8px 0 2px;
  color: var(--soft);
}
</style>
