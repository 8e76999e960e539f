<script setup lang="ts">
/** Values of this order's practice, each a field; an emptied one goes back to the kitchen's usual. */
import { computed } from "vue";
import { type Habit, type HabitName, type HabitValue, setHabit, usePractice } from "@/kitchen/practice";
import { useOrder } from "@/order/order";
import HabitField from "./HabitField.vue";

defineProps<{ habits: readonly Habit[] }>();
const emit = defineEmits<{ change: [] }>();
const order = useOrder();
const usual = usePractice();
const own = computed(() => order.document?.practice);

function set(name: HabitName, value: HabitValue | null): void {
  emit("change");
  order.edit((draft) => setHabit(draft.practice, name, value, usual.practice));
}
</script>

<template>
  <HabitField
    v-for="habit in habits"
    :key="habit.name"
    :habit="habit"
    :value="own?.[habit.name]"
    :usual="usual.practice?.[habit.name]"
    :pointer="`#/practice/${habit.name}`"
    @change="(value) => set(habit.name, value)"
  />
</template>
