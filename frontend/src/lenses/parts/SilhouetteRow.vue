<script setup lang="ts" generic="T extends string, C extends { value: T; words: string; icon: string }">
/** A choice among silhouettes, each drawn in a box of 24 by 24. */
import ChoiceRow from "@/ui/ChoiceRow.vue";
import SilhouetteIcon from "./SilhouetteIcon.vue";

defineProps<{ label: string; value: T; choices: readonly C[] }>();
const emit = defineEmits<{ change: [value: T] }>();
</script>

<template>
  <ChoiceRow
    :label="label"
    :value="value"
    :choices="choices"
    :columns="choices.length"
    @change="(chosen) => emit('change', chosen)"
  >
    <template #default="{ choice }">
      <SilhouetteIcon :icon="choice.icon" />
    </template>
  </ChoiceRow>
</template>
