<script setup lang="ts">
/** The cards: the order of stacking, what is taken out again, the way down; and all of them as paper. */
import { computed } from "vue";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import TaskList from "@/lenses/parts/TaskList.vue";
import TemplateLinks from "@/lenses/parts/TemplateLinks.vue";
import { useOrder } from "@/order/order";
import { usePapers } from "@/order/papers";

const order = useOrder();
const { takePrinted } = usePapers();
const stack = computed(() => order.plan?.stack);

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
    <TaskList name="Stacking, step by step" :tasks="stack.tasks" headed />
    <FigureRow label="Hands-on time, without waiting" :figure="stack.hands_on" />
    <TaskList name="How it is taken down" :tasks="stack.serving" />
    <TemplateLinks heading="Cards and templates">
      <button class="act main wide" @click="takePrinted('stacking.pdf')">
        Stacking, travel and serving cards
      </button>
    </TemplateLinks>
  </template>
</template>

<style scoped>
.wide {
  width: 100%;
  margin-top: 8px;
}
</style>
