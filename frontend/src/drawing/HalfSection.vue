<script setup lang="ts">
/** The whole cake to scale: the finished outside on the left, cut open on the right. */
import { computed, ref } from "vue";
import type { Component } from "vue";
import type { Part } from "@/api/types";
import { useElementSize } from "@/base/size";
import { useSettings } from "@/kitchen/settings";
import { ownOutline } from "@/order/kinds";
import { useOrder } from "@/order/order";
import TierField from "@/order/TierField.vue";
import { useDesk } from "@/ui/desk";
import FigureValue from "@/ui/FigureValue.vue";
import type { Notes } from "./annotations";
import EdgeHandle from "./EdgeHandle.vue";
import HeightGauge from "./HeightGauge.vue";
import { fit, path, type Sheet, spread, xAt, yAt } from "./layout";
import { leaderOf } from "./leaders";
import SectionPatterns from "./SectionPatterns.vue";
import { bandsSeen, bandsUp, isDark, leftOf, wallAt, wallLines } from "./tone";

const props = defineProps<{
  /** What is written beside it. */
  notes?: Notes;
  /** What is drawn over the tier in hand. */
  over?: Component;
  /** The edge of the tier in hand is drawn out by its disc or card, where it has one. */
  byPlate?: boolean;
}>();
const order = useOrder();
/** What the width of a tier is of: its tin, or all of a body with an outline of its own. */
const widthOf = (index: number): string => {
  const tier = order.document?.design.tiers[index];
  return tier && ownOutline(tier) ? "wide" : "tin";
};
const desk = useDesk();
const settings = useSettings();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);

const GAUGE = 46;
const ROW = 44;
const BELOW = 60;

const plan = computed(() => order.plan);
const compact = computed(() => size.width.value < 640);
const sheet = computed(() => {
  const stack = plan.value?.stack;
  const room = {
    width: size.width.value,
    height: size.height.value,
    left: compact.value ? 158 : 162,
    right: compact.value ? 176 : 196,
    top: 46,
    bottom: BELOW,
  };
  return fit(stack?.base_diameter.value ?? 1, stack?.height.value ?? 1, room);
});

const x = (mm: number): number => xAt(sheet.value, mm);
const y = (mm: number): number => yAt(sheet.value, mm);

/** A tier that stands off the middle of the cake is drawn so. */
function shifted(off: readonly number[] | undefined): string | undefined {
  const mm = off?.[0] ?? 0;
  return mm ? `translate(${mm * sheet.value.scale} 0)` : undefined;
}

/** The sheet as it lies about the axis of one tier. */
function onAxisOf({ off }: { off?: readonly number[] }): Sheet {
  return { ...sheet.value, axis: x(off?.[0] ?? 0) };
}

/** An open line through points in mm, on the left half. */
function trace(points: readonly (readonly [number, number])[]): string {
  return `M${points.map(([across, up]) => `${x(-across).toFixed(1)} ${y(up).toFixed(1)}`).join("L")}`;
}

const parts = computed(() =>
  (plan.value?.section.parts ?? []).map((part) => ({ ...part, d: path(part.outline, sheet.value) })),
);
/** Borders and pieces on the top, on the finished half and on the cut one. */
const added = computed(() =>
  (plan.value?.section.added ?? []).map((part) => ({
    ...part,
    left: path(part.outline, sheet.value, true),
    right: path(part.outline, sheet.value),
  })),
);
const outsides = computed(() =>
  (plan.value?.section.tiers ?? []).map((tier, index) => {
    const left = leftOf(tier);
    const half = Math.max(...left.map(([across]) => across));
    const heights = left.map(([, up]) => up);
    const [z0, z1] = [Math.min(...heights), Math.max(...heights)];
    return {
      ...tier,
      index,
      half,
      z0,
      z1,
      d: path(left, sheet.value, true),
      lines: wallLines(tier, half).map((line) => trace(wallAt(left, line / half))),
      bands: tier.round
        ? bandsUp(tier.bands as [string, number][], left).map(({ hex, edge }) => ({
            hex,
            d: `${trace(edge)}Z`,
          }))
        : bandsSeen(tier.bands as [string, number][]).map(([hex, from, to]) => {
            const [near, far] = [wallAt(left, from), wallAt(left, to)];
            return { hex, d: `${trace([...near, ...far.reverse()])}Z` };
          }),
    };
  }),
);
const base = computed(() => parts.value.find((part) => part.place === "stack"));
const inHand = computed(() => outsides.value[order.tier]);
const named = computed(() =>
  outsides.value.filter(
    (tier) =>
      tier.index === order.tier ||
      (outsides.value.length <= 6 && (tier.z1 - tier.z0) * sheet.value.scale > 56),
  ),
);

/** The one part a lit figure belongs to: the longest place its id begins with. */
const litPlace = computed(() => {
  let found = "";
  for (const { place } of parts.value) {
    const within = desk.lit === place || desk.lit.startsWith(`${place}.`);
    if (within && place.length > found.length) found = place;
  }
  return found;
});

/** The note whose figure is lit; computed apart, so that pointing about redraws nothing else. */
const litNote = computed(() => labels.value.find(({ note }) => note.figure.id === desk.lit)?.note.figure.id);

const labels = computed(() => {
  if (!plan.value || !order.document) return [];
  const found =
    props.notes?.(
      plan.value,
      order.document.design.tiers,
      Math.min(order.tier, plan.value.tiers.length - 1),
    ) ?? [];
  const wanted = found.map((note) => y((note.box.z0 + note.box.z1) / 2));
  const placed = spread(wanted, ROW, 24, size.height.value - BELOW - 10);
  const column = x((plan.value.stack.base_diameter.value ?? 0) / 2) + (compact.value ? 12 : 30);
  return found.map((note, index) => ({
    note,
    top: placed[index] ?? 0,
    column,
    ...leaderOf(note, sheet.value, placed[index] ?? 0, column),
  }));
});

function light(part: Part): void {
  desk.lit = part.place;
}

function choose(place: string): void {
  const match = /^tiers\.(\d+)/.exec(place);
  if (match) order.tier = Number(match[1]) - 1;
}
</script>

<template>
  <div ref="frame" class="frame">
    <svg
      v-if="plan && size.width.value"
      :width="size.width.value"
      :height="size.height.value"
      role="img"
      :aria-label="`The cake in half-section, ${settings.words(plan.stack.height)} high`"
    >
      <SectionPatterns />

      <HeightGauge
        :sheet="sheet"
        :left="GAUGE"
        :height="plan.stack.height.value"
        :reach="outsides.at(-1)?.half ?? 0"
      />

      <template v-if="base">
        <path :d="path(base.outline, sheet, true)" :fill="base.hex" class="edge board" />
        <path :d="path(base.outline, sheet, true)" fill="url(#board)" />
      </template>

      <g
        v-for="tier in outsides"
        :key="tier.place"
        class="outside"
        :transform="shifted(tier.off)"
        @click="choose(tier.place)"
      >
        <path :d="tier.d" :fill="tier.hex" class="edge" />
        <path v-for="(band, at) in tier.bands" :key="`b${at}`" :d="band.d" :fill="band.hex" />
        <path
          v-for="line in tier.lines"
          :key="line"
          class="engraved"
          :class="{ dark: isDark(tier.hex) }"
          :d="line"
        />
        <path :d="tier.d" class="edge" fill="none" />
      </g>

      <g
        v-for="(part, index) in parts"
        :key="index"
        class="part"
        :class="{ lit: litPlace === part.place }"
        :transform="shifted(part.off)"
        @pointerenter="light(part)"
        @pointerleave="desk.lit = ''"
        @click="choose(part.place)"
      >
        <path :d="part.d" :fill="part.hex" />
        <path
          v-if="part.kind !== 'final'"
          :d="part.d"
          :fill="`url(#${isDark(part.hex) ? 'pale' : part.kind})`"
        />
        <path :d="part.d" fill="none" class="edge" :class="part.kind" />
      </g>

      <g
        v-for="(part, index) in added"
        :key="`a${index}`"
        class="part"
        :class="{ lit: desk.lit.startsWith(part.place) }"
        :transform="shifted(part.off)"
        @pointerenter="light(part)"
        @pointerleave="desk.lit = ''"
        @click="choose(part.place)"
      >
        <path v-for="d in [part.left, part.right]" :key="d" :d="d" :fill="part.hex" class="edge" />
      </g>

      <path class="axis" :d="`M${sheet.axis} ${y(plan.stack.height.value) - 22}V${y(0) + 16}`" />
      <path
        v-if="inHand && outsides.length > 1"
        class="hand"
        :transform="shifted(inHand.off)"
        :d="`M${x(-inHand.half)} ${y(inHand.z1)}H${x(inHand.half)}V${y(inHand.z0)}H${x(-inHand.half)}Z`"
      />

      <component :is="over" v-if="over && inHand" :sheet="sheet" :most="size.height.value - BELOW" />
      <EdgeHandle v-if="inHand" :by-plate="byPlate" :sheet="onAxisOf(inHand)" :outside="inHand" />

      <g class="notes">
        <template v-for="{ note, bracket, leader, dot } in labels" :key="`${note.figure.id}`">
          <path v-if="bracket" class="bracket" :d="bracket" />
          <path class="leader" :d="leader" />
          <circle v-if="dot" :cx="dot[0]" :cy="dot[1]" r="3.2" />
        </template>
        <path
          class="bracket"
          :d="`M${x(-plan.stack.base_diameter.value / 2)} ${y(0) + 10}v10M${x(-plan.stack.base_diameter.value / 2)} ${y(0) + 15}H${x(plan.stack.base_diameter.value / 2)}m0 -5v10`"
        />
      </g>
    </svg>

    <template v-if="plan && size.width.value">
      <div
        class="label total"
        :style="{ left: `${GAUGE - 38}px`, top: `${y(plan.stack.height.value) - 42}px` }"
      >
        <FigureValue :figure="plan.stack.height" label="Whole cake, high" />
      </div>
      <div
        v-for="tier in named"
        :key="tier.place"
        class="label tier"
        :class="{ chosen: tier.index === order.tier }"
        :style="{
          right: `${size.width.value - x((tier.off?.[0] ?? 0) - tier.half) + 12}px`,
          top: `${y((tier.z0 + tier.z1) / 2)}px`,
          maxWidth: `${Math.max(64, x((tier.off?.[0] ?? 0) - tier.half) - GAUGE - 34)}px`,
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
          /><span v-if="!compact" class="unit">{{ widthOf(tier.index) }}</span>
        </div>
      </div>
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
      <div class="label board" :style="{ left: `${sheet.axis}px`, top: `${y(0) + 16}px` }">
        <span class="what">base board</span>
        <FigureValue :figure="plan.stack.base_diameter" label="Base board, across" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  height: 100%;
  overflow: hidden;
}

svg {
  position: absolute;
  inset: 0;
}

.edge {
  stroke: var(--ink);
  stroke-width: 1;
}

.outside .edge {
  stroke-width: 1.6;
}

.edge.board {
  stroke: var(--teal);
}

.part,
.outside {
  cursor: pointer;
}

.part.lit .edge {
  stroke: var(--amber);
  stroke-width: 3;
}

.engraved {
  fill: none;
  stroke: var(--ink);
  stroke-width: 0.8;
  opacity: 0.2;
}

.engraved.dark {
  stroke: var(--panel);
}

.axis {
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 14 4 3 4;
}

.hand {
  fill: none;
  stroke: var(--amber-line);
  stroke-width: 3.5;
  stroke-linejoin: round;
  pointer-events: none;
}

.bracket {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}

.leader {
  fill: none;
  stroke: var(--soft);
  stroke-width: 1;
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

.label.tier {
  flex-direction: column;
  align-items: flex-end;
  gap: 0;
  transform: translateY(-50%);
}

.what {
  color: var(--soft);
  font-size: 16px;
  white-space: nowrap;
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

.tin {
  display: flex;
  gap: 5px;
  align-items: baseline;
}

.tin :deep(input) {
  font-size: 17px;
}

.note :deep(.says),
.tier :deep(.says) {
  position: absolute;
  z-index: 3;
  top: 100%;
  width: 220px;
  padding: 8px 10px;
  border: 1px solid var(--trouble);
  background: var(--panel);
}

.note :deep(.says) {
  right: 0;
}
</style>
