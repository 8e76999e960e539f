<script setup lang="ts">
/**
 * What stands left of the cake: each tier's name and tin beside it, and the running heights of the tier in hand in a
 * column of their own, each led to the wall at its height. In a narrow frame names stand on the finished half.
 */
import { computed } from "vue";
import type { Plan } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import { ownOutline } from "@/order/kinds";
import { useOrder } from "@/order/order";
import TierField from "@/order/TierField.vue";
import { useDesk } from "@/ui/desk";
import FractionText from "@/ui/FractionText.vue";
import { heightsOf } from "./heights";
import { type Sheet, spread, xAt, yAt } from "./layout";

const props = defineProps<{
  plan: Plan;
  sheet: Sheet;
  /** The tiers as they are seen, and which of them are named. */
  outsides: readonly {
    index: number;
    place: string;
    half: number;
    z0: number;
    z1: number;
    off?: readonly number[];
  }[];
  size: readonly [number, number];
  heights: boolean;
  compact: boolean;
  /** Where the ruler ends, and the lowest a label may stand. */
  from: number;
  most: number;
}>();
const order = useOrder();
const desk = useDesk();
const settings = useSettings();
/** How high a name with its tin is, and a running height. */
const NAME = 72;
const ROW = 22;
const TOP = 24;
const CLEAR = 14;

const scale = computed(() => props.sheet.scale);
const named = computed(() =>
  props.outsides.filter(
    (tier) =>
      tier.index === order.tier || (props.outsides.length <= 6 && (tier.z1 - tier.z0) * scale.value > 56),
  ),
);
/** The column of running heights ends left of all of the cake. */
const column = computed(() =>
  Math.max(
    props.from + 150,
    xAt(props.sheet, Math.min(...props.outsides.map((tier) => (tier.off?.[0] ?? 0) - tier.half))) - 2 * CLEAR,
  ),
);
const leftOf = (tier: { half: number; off?: readonly number[] }): number =>
  xAt(props.sheet, (tier.off?.[0] ?? 0) - tier.half);

/** Where a name ends on the right; over the finished half the middle of that, where it is centred. */
function rightOf(tier: { half: number; off?: readonly number[] }): number {
  if (within.value) return xAt(props.sheet, (tier.off?.[0] ?? 0) - tier.half / 2);
  return marks.value.length ? column.value : Math.max(props.from + 96, leftOf(tier) - CLEAR);
}

const tall = computed(() => props.most - TOP);
const marks = computed(() => {
  const [planned, seen] = [props.plan.tiers[order.tier], props.plan.section.tiers[order.tier]];
  if (!props.heights || !planned || !seen) return [];
  const room = Math.floor((tall.value - NAME) / ROW);
  return heightsOf(planned, seen, Math.max(2, room));
});
/** Names over the finished half, where there is room for them: in a narrow frame there is none beside it. */
const within = computed(() => props.compact && !props.heights);
const labels = computed(() => {
  // Where there is no room for all names beside the heights, the tier in hand keeps its own.
  const crowded = named.value.length * NAME + marks.value.length * ROW > tall.value;
  const names = named.value.filter((tier) =>
    within.value
      ? tier.half * scale.value > 96 && (tier.z1 - tier.z0) * scale.value > 58
      : tier.index === order.tier || !(crowded && marks.value.length),
  );
  const wanted = [
    ...names.map(({ index, z0, z1 }) =>
      marks.value.length && index === order.tier
        ? yAt(props.sheet, z1) - NAME / 2
        : yAt(props.sheet, (z0 + z1) / 2),
    ),
    ...marks.value.map(({ z }) => yAt(props.sheet, z)),
  ];
  const high = [...names.map(() => NAME), ...marks.value.map(() => ROW)];
  const placed = within.value ? wanted : spread(wanted, high, TOP, props.most);
  return {
    names: names.map((tier, at) => {
      const right = rightOf(tier);
      // What finds no room beside a wide cake stands on it too.
      const over = within.value || right > leftOf(tier);
      return { ...tier, top: placed[at] ?? 0, right, over };
    }),
    marks: marks.value.map((mark, at) => ({
      ...mark,
      y: wanted[names.length + at] ?? 0,
      top: placed[names.length + at] ?? 0,
    })),
  };
});
const shown = (top: number): boolean => top > 8 && top < props.most + 8;
/** From the words level, then to the wall, and a little into it. */
function leader(mark: { y: number; top: number; reach: number }): string {
  const off = props.plan.section.tiers[order.tier]?.off?.[0] ?? 0;
  const wall = xAt(props.sheet, off - mark.reach);
  const bend = Math.min(column.value + 12, wall - 6);
  return `M${column.value + 4} ${mark.top}H${bend}L${Math.max(bend, wall - 10)} ${mark.y}H${wall + 9}`;
}
/** What the width of a tier is of: its tin, or all of a body with an outline of its own. */
function widthOf(index: number): string {
  const tier = order.document?.design.tiers[index];
  return tier && ownOutline(tier) ? "wide" : "tin";
}
</script>

<template>
  <svg v-if="labels.marks.length" class="leaders" :width="size[0]" :height="size[1]" aria-hidden="true">
    <path
      v-for="mark in labels.marks"
      :key="mark.up.id"
      :d="leader(mark)"
      :class="{ lit: desk.lit === mark.up.id }"
    />
  </svg>
  <template v-for="tier in labels.names" :key="tier.place">
    <div
      v-if="shown(tier.top)"
      class="label tier"
      :class="{ chosen: tier.index === order.tier, within, over: tier.over }"
      :style="{
        right: `${size[0] - tier.right}px`,
        top: `${tier.top}px`,
        maxWidth: `${Math.max(64, within ? tier.half * scale - 16 : tier.right - from)}px`,
      }"
    >
      <button class="name" :aria-pressed="tier.index === order.tier" @click="order.tier = tier.index">
        {{ plan.tiers[tier.index]?.name }}
      </button>
      <div class="tin">
        <TierField
          field="tin_diameter_mm"
          :index="tier.index"
          quiet
          :figure="`${tier.place}.layers.cake_diameter`"
        /><span class="unit">{{ widthOf(tier.index) }}</span>
      </div>
    </div>
  </template>
  <template v-for="mark in labels.marks" :key="mark.up.id">
    <div
      v-if="shown(mark.top)"
      class="label mark"
      :data-figure="mark.up.id"
      :class="{ lit: desk.lit === mark.up.id }"
      :style="{ right: `${size[0] - column}px`, top: `${mark.top}px` }"
      v-on="desk.lights(mark.up.id)"
    >
      <span class="what">{{ mark.name }}</span> <FractionText :text="settings.words(mark.up)" />
    </div>
  </template>
</template>

<style scoped>
.leaders {
  position: absolute;
  inset: 0;
  pointer-events: none;
}

.leaders path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 0.9;
}

.leaders .lit {
  stroke: var(--amber);
  stroke-width: 2.2;
}

.label {
  position: absolute;
  display: flex;
  align-items: center;
  transform: translateY(-50%);
}

/* The line the cake stands on goes by behind the lowest of them. */
.mark {
  gap: 8px;
  height: 22px;
  padding: 0 2px;
  background: var(--paper);
  font-size: 17px;
  line-height: 22px;
  white-space: nowrap;
}

.mark.lit {
  color: var(--amber);
}

.what {
  color: var(--soft);
  font-size: 16px;
}

.tier {
  flex-direction: column;
  align-items: flex-end;
}

.tier.within {
  align-items: center;
  transform: translate(50%, -50%);
}

.name {
  max-width: 100%;
  min-height: 32px;
  padding: 0 2px;
  overflow: hidden;
  border: 0;
  background: none;
  font-family: var(--serif);
  font-weight: 600;
  font-size: 19px;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}

.chosen .name {
  color: var(--amber);
}

/* On the cake they stand on a slip of paper, whatever its colour and lines. */
.over {
  padding: 0 8px 2px;
  border-radius: 2px;
  background: color-mix(in srgb, var(--paper) 88%, transparent);
}

.tin {
  display: flex;
  gap: 5px;
  align-items: baseline;
}

.tin :deep(input) {
  font-size: 17px;
}

.tier :deep(.says) {
  position: absolute;
  z-index: 3;
  top: 100%;
  width: 220px;
  padding: 8px 10px;
  border: 1px solid var(--trouble);
  background: var(--panel);
}
</style>
