<script setup lang="ts">
/** The whole cake to scale, as a plate: the finished outside on the left, cut open on the right. */
import { computed, ref, shallowRef, useId } from "vue";
import type { Component } from "vue";
import { useElementSize } from "@/base/size";
import { useSettings } from "@/kitchen/settings";
import { useDescribed } from "@/order/described";
import { useOrder } from "@/order/order";
import TierField from "@/order/TierField.vue";
import { useDesk } from "@/ui/desk";
import FigureValue from "@/ui/FigureValue.vue";
import { type Notes, tierIn } from "./annotations";
import Closeness from "./Closeness.vue";
import CutParts from "./CutParts.vue";
import EdgeHandle from "./EdgeHandle.vue";
import Ground from "./Ground.vue";
import HeightGauge from "./HeightGauge.vue";
import { fit, type Sheet, shifted, spread, xAt, yAt } from "./layout";
import { leaderOf } from "./leaders";
import OutsideTier from "./OutsideTier.vue";
import { corners } from "./plate";
import RimGlass from "./RimGlass.vue";
import SectionPatterns from "./SectionPatterns.vue";
import SideNames from "./SideNames.vue";
import { leftOf } from "./tone";
import { seenBy, useView } from "./view";

const props = defineProps<{
  /** What is written beside it. */
  notes?: Notes;
  /** What is drawn over the tier in hand. */
  over?: Component;
  /** The edge of the tier in hand is drawn out by its disc or card, where it has one. */
  byPlate?: boolean;
  /** The running heights of the tier in hand stand in a column beside it. */
  heights?: boolean;
  /** A glass is held over the rim of the tier in hand. */
  glass?: boolean;
}>();
const order = useOrder();
const desk = useDesk();
const settings = useSettings();
const { described } = useDescribed();
const saidId = useId();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const { view, looksCloser, go, fit: fitAgain, heard } = useView(frame, size);

/** Where the ruler stands; in a narrow frame, and beside running heights, there is none. */
const GAUGE = 46;
const NARROW = 640;
/** Where it is as narrow as a hand, nothing is written right of the cake: the panel has it all. */
const HAND = 520;
const ROW = 44;
const TOP = 46;
const BELOW = 68;

const plan = computed(() => order.plan);
const compact = computed(() => size.width.value < NARROW);
/** The words beside the cake take so much room. */
const written = 184;
const bare = computed(() => size.width.value < HAND);
/** A drum on its side has no layers one above the other, and so no running heights. */
const running = computed(() => props.heights && !plan.value?.tiers[order.tier]?.foot);
const ruled = computed(() => !compact.value && !running.value);
const left = computed(() => {
  if (running.value) return 158;
  return compact.value ? 14 : 138;
});
const fitted = computed(() => {
  const stack = plan.value?.stack;
  return fit(stack?.base_diameter.value ?? 1, stack?.height.value ?? 1, {
    width: size.width.value,
    height: size.height.value,
    left: left.value,
    right: bare.value ? 16 : props.notes ? written : 40,
    top: TOP,
    bottom: BELOW,
  });
});
/** While an edge is drawn out the sheet stays as it is, so that the edge stays under the hand. */
const heldSheet = shallowRef<Sheet | null>(null);
const sheet = computed(() => seenBy(heldSheet.value ?? fitted.value, view.value));

const x = (mm: number): number => xAt(sheet.value, mm);
const y = (mm: number): number => yAt(sheet.value, mm);

/** The sheet as it lies about the axis of one tier. */
function onAxisOf({ off }: { off?: readonly number[] }): Sheet {
  return { ...sheet.value, axis: x(off?.[0] ?? 0) };
}

const outsides = computed(() =>
  (plan.value?.section.tiers ?? []).map((tier, index) => {
    const seen = leftOf(tier);
    const heights = seen.map(([, up]) => up);
    const half = Math.max(...seen.map(([across]) => across));
    return { ...tier, index, half, z0: Math.min(...heights), z1: Math.max(...heights) };
  }),
);
/** The lines scored on a carved tier, where it stands in the cake. */
function scoredOn(index: number): [number, number][][] {
  const { carving, stack } = plan.value?.tiers[index] ?? {};
  const foot = stack?.bottom.value ?? 0;
  return (carving?.scored ?? []).map((line) => line.map(([across = 0, up = 0]) => [across, foot + up]));
}
const base = computed(() => plan.value?.section.parts.find((part) => part.place === "stack"));
const inHand = computed(() => outsides.value[order.tier]);
/** What of the tier in hand is seen, either half. */
const marked = computed(() => {
  const tier = inHand.value;
  if (!tier || outsides.value.length < 2) return "";
  const right = Math.max(...tier.outline.map(([across]) => across));
  return corners(x(-tier.half), y(tier.z1), x(right), y(tier.z0));
});
/** All but the tier in hand step back, where there are others. */
function back(place: string): boolean {
  const tier = tierIn(plan.value, place);
  return outsides.value.length > 1 && tier >= 0 && tier !== order.tier;
}

/** The one part a lit figure belongs to: the longest place its id begins with. */
const litPlace = computed(() => {
  let found = "";
  const { parts = [], added = [] } = plan.value?.section ?? {};
  for (const { place } of [...parts, ...added]) {
    const within = desk.lit === place || desk.lit.startsWith(`${place}.`);
    if (within && place.length > found.length) found = place;
  }
  return found;
});

/** The note whose figure is lit; computed apart, so that pointing about redraws nothing else. */
const litNote = computed(() => labels.value.find(({ note }) => note.figure.id === desk.lit)?.note.figure.id);

/** Nothing is written beside the cake below its table. */
const lowest = computed(() => Math.min(size.height.value - BELOW, y(0)) + 4);
const labels = computed(() => {
  if (!plan.value || !order.document || bare.value) return [];
  const found = (
    props.notes?.(
      plan.value,
      order.document.design.tiers,
      Math.min(order.tier, plan.value.tiers.length - 1),
    ) ?? []
  ).filter(({ box }) => y(box.z1) < size.height.value - BELOW && y(box.z0) > 0);
  const wanted = found.map((note) => y((note.box.z0 + note.box.z1) / 2));
  const placed = spread(wanted, ROW, 24, lowest.value - 14);
  const beside = x((plan.value.stack.base_diameter.value ?? 0) / 2) + (compact.value ? 12 : 16);
  const column = Math.min(beside, size.width.value - written + (compact.value ? 12 : 16));
  return found.map((note, index) => ({
    note,
    top: placed[index] ?? 0,
    column,
    ...leaderOf(note, sheet.value, placed[index] ?? 0, column),
  }));
});
const board = computed(() => y(0) + 24);

function choose(place: string): void {
  const tier = tierIn(plan.value, place);
  if (tier >= 0) order.tier = tier;
}
</script>

<template>
  <div ref="frame" class="frame" :class="{ closer: looksCloser }" v-bind="heard">
    <p v-if="plan && order.document" :id="saidId" class="unseen">
      {{ described(order.document.design.tiers, plan).join(" ") }}
    </p>
    <svg
      v-if="plan && size.width.value"
      :width="size.width.value"
      :height="size.height.value"
      role="img"
      :aria-label="`The cake in half-section, ${settings.words(plan.stack.height)} high`"
      :aria-describedby="saidId"
    >
      <SectionPatterns :scale="Math.min(3, Math.max(0.45, sheet.scale * 0.62))" />

      <Ground v-if="base" :sheet="sheet" :board="base" :half="plan.stack.base_diameter.value / 2" />
      <HeightGauge
        v-if="ruled && !looksCloser"
        :sheet="sheet"
        :left="GAUGE"
        :height="plan.stack.height.value"
        :reach="outsides.at(-1)?.half ?? 0"
      />

      <g
        v-for="one in outsides"
        :key="one.place"
        class="outside"
        :class="{ back: back(one.place) }"
        :transform="shifted(one.off, sheet)"
        @click="choose(one.place)"
      >
        <OutsideTier :tier="one" :half="one.half" :sheet="sheet" :scored="scoredOn(one.index)" />
      </g>

      <CutParts :plan="plan" :sheet="sheet" :lit="litPlace" :back="back" @choose="choose" />

      <path class="axis" :d="`M${sheet.axis} ${y(plan.stack.height.value) - 22}V${y(0) + 16}`" />
      <path v-if="marked && inHand" class="hand" :transform="shifted(inHand.off, sheet)" :d="marked" />

      <component :is="over" v-if="over && inHand" :sheet="sheet" :most="size.height.value - BELOW" />
      <EdgeHandle
        v-if="inHand"
        :by-plate="byPlate"
        :sheet="onAxisOf(inHand)"
        :outside="inHand"
        @hold="heldSheet = fitted"
        @release="heldSheet = null"
      />

      <RimGlass
        v-if="glass && !bare && !looksCloser"
        :plan="plan"
        :tier="order.tier"
        :sheet="sheet"
        :size="[size.width.value, size.height.value]"
        :taken="labels.map(({ top }) => top)"
      />

      <g class="notes">
        <template v-for="{ note, bracket, leader, dot } in labels" :key="`${note.figure.id}`">
          <path v-if="bracket" class="bracket" :d="bracket" />
          <path class="leader" :d="leader" />
          <circle v-if="dot" :cx="dot[0]" :cy="dot[1]" r="3.2" />
        </template>
        <path
          class="bracket"
          :d="`M${x(-plan.stack.base_diameter.value / 2)} ${y(0) + 14}v9M${x(-plan.stack.base_diameter.value / 2)} ${y(0) + 18.5}H${x(plan.stack.base_diameter.value / 2)}m0 -4.5v9`"
        />
      </g>
    </svg>

    <template v-if="plan && size.width.value">
      <div
        v-if="!looksCloser"
        class="label total"
        :style="{
          left: ruled ? '8px' : `${sheet.axis + 6}px`,
          top: `${Math.max(2, y(plan.stack.height.value) - 44)}px`,
        }"
      >
        <FigureValue :figure="plan.stack.height" label="Whole cake, high" />
      </div>
      <SideNames
        :plan="plan"
        :sheet="sheet"
        :outsides="outsides"
        :size="[size.width.value, size.height.value]"
        :heights="running ?? false"
        :compact="compact"
        :from="ruled ? GAUGE + 14 : 6"
        :most="lowest"
      />
      <div
        v-for="{ note, top, column } in labels"
        :key="note.figure.id"
        class="label note"
        :class="{ lit: litNote === note.figure.id }"
        :style="{ left: `${column}px`, top: `${top}px` }"
      >
        <span class="what">{{ note.label }}</span>
        <TierField
          v-if="note.field"
          :field="note.field"
          :index="note.tier"
          :figure="note.figure.id"
          :usual="note.figure.value"
          quiet
        />
        <FigureValue v-else :figure="note.figure" :label="note.label" />
      </div>
      <div
        v-if="board < size.height.value - 20"
        class="label board"
        :style="{ left: `${Math.min(size.width.value - 96, Math.max(96, sheet.axis))}px`, top: `${board}px` }"
      >
        <span class="what">base board</span>
        <FigureValue :figure="plan.stack.base_diameter" label="Base board, across" />
      </div>
      <Closeness :closer="looksCloser" @go="go" @fit="fitAgain" />
    </template>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  height: 100%;
  overflow: hidden;
  touch-action: pan-y;
}

.frame.closer {
  touch-action: none;
  cursor: grab;
}

svg {
  position: absolute;
  inset: 0;
}

.outside {
  cursor: pointer;
}

.back {
  opacity: 0.8;
}

.axis {
  stroke: var(--ink);
  stroke-width: 1.1;
  stroke-dasharray: 14 4 3 4;
  pointer-events: none;
}

.hand {
  fill: none;
  stroke: var(--amber-line);
  stroke-width: 3;
  pointer-events: none;
}

.bracket {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
}

.leader {
  fill: none;
  stroke: var(--soft);
  stroke-width: 0.9;
}

.notes circle {
  fill: var(--panel);
  stroke: var(--ink);
  stroke-width: 1.4;
}

.notes {
  pointer-events: none;
}

.label {
  position: absolute;
  display: flex;
  align-items: center;
  gap: 6px;
}

.label.note {
  transform: translateY(-50%);
}

.label.note.lit .what {
  color: var(--amber);
}

.label.board {
  transform: translateX(-50%);
  padding: 0 8px;
  background: var(--paper);
}

.what {
  color: var(--soft);
  font-size: 16px;
  white-space: nowrap;
}

.note :deep(.says) {
  position: absolute;
  z-index: 3;
  top: 100%;
  right: 0;
  width: 220px;
  padding: 8px 10px;
  border: 1px solid var(--trouble);
  background: var(--panel);
}
</style>
