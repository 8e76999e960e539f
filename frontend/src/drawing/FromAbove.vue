<script setup lang="ts">
/** The tiers seen from above, to one scale; pressed, a tier comes into hand. */
import { computed } from "vue";
import type { Silhouette } from "@/api/types";
import { useOrder } from "@/order/order";
import { closed } from "./layout";
import { hexOf } from "./tone";

const HIGH = 170;
const order = useOrder();
const tiers = computed(() => order.plan?.section.tiers ?? []);
const board = computed(() => order.plan?.section.board_from_above ?? []);
const reach = computed(() => Math.max(1, ...[board.value, ...tiers.value.map(seen)].flat(2).map(Math.abs)));
/** A tier's outline where it stands, which may be off the middle. */
function seen({ seen_from_above, off }: Silhouette): [number, number][] {
  const [right = 0, back = 0] = off ?? [];
  return seen_from_above.map(([x = 0, y = 0]) => [x + right, y + back]);
}
const line = (points: readonly (readonly number[])[]): string =>
  closed(
    points,
    (mm) => mm * scale.value,
    (mm) => -mm * scale.value,
  );
const scale = computed(() => (HIGH / 2 - 4) / reach.value);
const outlines = computed(() =>
  tiers.value.map((tier) => ({
    hex: hexOf(tier.paint),
    place: tier.place,
    d: line(seen(tier)),
  })),
);
</script>

<template>
  <svg
    :viewBox="`${-HIGH} ${-HIGH / 2} ${2 * HIGH} ${HIGH}`"
    :height="HIGH"
    role="img"
    aria-label="The tiers on their board, seen from above"
  >
    <path v-if="board.length" class="board" :d="line(board)" />
    <path
      v-for="(tier, index) in outlines"
      :key="tier.place"
      :d="tier.d"
      :fill="tier.hex"
      :class="{ chosen: index === order.tier && outlines.length > 1 }"
      @click="order.tier = index"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  margin-top: 10px;
}

path {
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-linejoin: round;
  cursor: pointer;
}

.board {
  fill: var(--foil);
  cursor: default;
}

.chosen {
  stroke: var(--amber-line);
  stroke-width: 3.5;
}
</style>
