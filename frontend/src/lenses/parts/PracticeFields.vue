<script setup lang="ts">
/** Values of this order's practice, each a field; an emptied one goes back to the kitchen's usual. */
import { computed } from "vue";
import { type Habit, type HabitName, usePractice } from "@/kitchen/practice";
import { useOrder } from "@/order/order";
import MeasureField from "@/ui/MeasureField.vue";

defineProps<{ habits: readonly Habit[] }>();
const emit = defineEmits<{ change: [] }>();
const order = useOrder();
const usual = usePractice();
const own = computed(() => order.document?.practice);

function set(name: HabitName, value: number | null): void {
  emit("change");
  order.edit((draft) => {
    draft.practice[name] = value ?? usual.practice?.[name] ?? draft.practice[name];
  });
}
</script>

<template>
  <MeasureField
    v-for="habit in habits"
    :key="habit.name"
    :label="habit.words"
    :limit="habit.limit"
    :percent="habit.percent"
    :value="own?.[habit.name]"
    :usual="usual.practice?.[habit.name]"
    :pointer="`#/practice/${habit.name}`"
    @change="(value) => set(habit.name, value)"
  />
</template>
