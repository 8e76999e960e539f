<script setup lang="ts">
/** A round glass over the rim of the tier in hand, six times as large: crumb coat, coat and cover, each by its name. */
import { computed } from "vue";
import type { Plan } from "@/api/types";
import { boxOf, tierIn } from "./annotations";
import { path, type Sheet, xAt, yAt } from "./layout";
import { useMaterials } from "./materials";
import { bandsAt, heldAt } from "./rim";
import RoundGlass from "./RoundGlass.vue";
import FractionSpans from "./FractionSpans.vue";

const props = defineProps<{
  plan: Plan;
  tier: number;
  sheet: Sheet;
  size: readonly [number, number];
  /** The middles of what is written beside the cake, which the glass keeps clear of. */
  taken: readonly number[];
}>();
const CLOSER = 6;
const R = 68;
/** Names stand above the glass in rows. */
const ROW = 19;
const ROWS = 3;
const EDGE = 12;
const NEAR = 24;

const { looks } = useMaterials();
const own = computed(() =>
  props.plan.section.parts.filter(({ place }) => tierIn(props.plan, place) === props.tier),
);
const at = computed(() => {
  const seen = props.plan.section.tiers[props.tier];
  return seen ? heldAt(seen, own.value) : null;
});
/** The top right corner where that is free, else the bottom right one; else there is no glass. */
const middle = computed((): [number, number] | null => {
  const [wide, high] = props.size;
  const deep = ROWS * ROW + 2 * R + 12;
  const free = (top: number): boolean =>
    props.taken.every((one) => one < top - NEAR || one > top + deep + NEAR);
  const top = [4, high - deep - 56].find(free);
  return top === undefined || high < deep + 60 ? null : [wide - EDGE - R, top + ROWS * ROW + R + 8];
});
const glass = computed((): Sheet | null => {
  if (!at.value || !middle.value) return null;
  const scale = props.sheet.scale * CLOSER;
  // The wall stands right of the middle, so that what is within it shows.
  const [right, down] = [middle.value[0] + R * 0.62, middle.value[1] + R * 0.42];
  return { scale, axis: right - at.value.x * scale, table: down + at.value.z * scale };
});
const parts = computed(() => {
  const [sheet, centre] = [glass.value, middle.value];
  if (!sheet || !centre) return [];
  return looks(own.value)
    .filter(({ outline }) => {
      const { x1, z0, z1 } = boxOf(outline);
      return (
        xAt(sheet, x1) > centre[0] - R && yAt(sheet, z1) < centre[1] + R && yAt(sheet, z0) > centre[1] - R
      );
    })
    .map((part) => ({ ...part, d: path(part.outline, sheet) }));
});
const bands = computed(() => {
  const [sheet, centre] = [glass.value, middle.value];
  if (!sheet || !centre || !at.value) return [];
  const found = bandsAt(own.value, at.value.z);
  return found.map((band, index) => ({
    ...band,
    x: xAt(sheet, band.x),
    // The farthest out is named in the highest row, so that no leader crosses a name.
    y: centre[1] - R - 8 - index * ROW,
    to: yAt(sheet, at.value?.z ?? 0),
  }));
});
</script>

<template>
  <RoundGlass v-if="middle && glass && bands.length" :middle="middle" :radius="R">
    <g v-for="(one, index) in parts" :key="index">
      <path :d="one.d" :fill="one.hex" />
      <path v-if="one.over" :d="one.d" :fill="one.over" />
      <path :d="one.d" class="edge" />
    </g>
    <template #over>
      <g v-for="band in bands" :key="band.kind">
        <path class="leader" :d="`M${band.x} ${band.y - 4}V${band.to}`" />
        <circle class="dot" :cx="band.x" :cy="band.to" r="2.6" />
        <text :x="band.x - 6" :y="band.y" text-anchor="end"><FractionSpans :text="band.words" /></text>
      </g>
    </template>
  </RoundGlass>
</template>

<style scoped>
.edge {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}

.leader {
  stroke: var(--ink);
  stroke-width: 0.9;
}

.dot {
  fill: var(--panel);
  stroke: var(--ink);
  stroke-width: 1.2;
}

text {
  fill: var(--soft);
  font: 16px var(--sans);
}
</style>
