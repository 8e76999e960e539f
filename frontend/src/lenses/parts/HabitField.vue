<script setup lang="ts">
/** One value of a practice: a number, or one of a few choices. */
import type { Habit, HabitValue } from "@/kitchen/practice";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import MeasureField from "@/ui/MeasureField.vue";

defineProps<{ habit: Habit; value?: HabitValue; usual?: HabitValue; pointer?: string }>();
const emit = defineEmits<{ change: [value: HabitValue | null] }>();
const number = (value?: HabitValue): number | undefined => (typeof value === "number" ? value : undefined);
</script>

<template>
  <div v-if="habit.choices?.length" class="choice">
    <span aria-hidden="true">{{ habit.words }}</span>
    <ChoiceRow
      :label="habit.words"
      :value="String(value)"
      :choices="habit.choices.map((one) => ({ value: String(one.value), words: one.words }))"
      @change="(one) => emit('change', one as HabitValue)"
    />
  </div>
  <MeasureField
    v-else
    :label="habit.words"
    :limit="habit.limit"
    :percent="habit.percent"
    :value="number(value)"
    :usual="number(usual)"
    :pointer="pointer"
    @change="(one) => emit('change', one)"
  />
</template>

<style scoped>
.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  justify-content: space-between;
  padding: 4px 0;
}
</style>
