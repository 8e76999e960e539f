<script setup lang="ts">
/** What is cut from what, so that as few as possible are taken. */
import { computed } from "vue";
import type { Figure } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import { useOrder } from "@/order/order";
import FractionText from "@/ui/FractionText.vue";

const order = useOrder();
const settings = useSettings();
const lists = computed(() => Object.values(order.plan?.stack.cutting ?? {}));

/** The lengths of one piece, those alike counted. */
function lengths(of: Record<string, Figure>): string {
  const counted = new Map<string, number>();
  for (const one of Object.values(of)) {
    const words = settings.words(one);
    counted.set(words, (counted.get(words) ?? 0) + 1);
  }
  return [...counted].map(([words, count]) => (count > 1 ? `${count} × ${words}` : words)).join(" + ");
}
</script>

<template>
  <template v-for="list in lists" :key="list.sort">
    <h3>Cut from {{ list.many }}</h3>
    <FigureRow :label="`Of ${settings.words(list.stock)}, to take`" :figure="list.rods" />
    <ul>
      <li v-for="(cut, at) in list.cuts" :key="at">
        <b>{{ cut.times }} ×</b> <FractionText :text="lengths(cut.lengths)" />
        <span class="rest"><FractionText :text="`${settings.words(cut.rest)} left of each`" /></span>
      </li>
    </ul>
  </template>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  padding: 9px 0;
  border-bottom: 1px solid var(--rule);
}

.rest {
  margin-left: auto;
  color: var(--soft);
}
</style>
