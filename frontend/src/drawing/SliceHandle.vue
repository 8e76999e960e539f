<script setup lang="ts">
/** A carved tier as a thin stack of its layers, with a knob that is moved to the height at which it is sliced. */
import { computed, watch } from "vue";
import { useSettings } from "@/kitchen/settings";
import { useLevels } from "@/order/levels";
import { arrowStep, pixelsIn, useDrag } from "./drag";

const props = defineProps<{ x: number; top: number; bottom: number }>();
const { slices, slice, at, high, slicedAt, load, sliceAt, whole } = useLevels();
const settings = useSettings();
const WIDE = 14;

const scale = computed(() => (props.bottom - props.top) / Math.max(1, high.value));
const y = (mm: number): number => props.bottom - mm * scale.value;
/** Where the knob stands: while whole layers are looked at in the middle of that. */
const stands = computed(() => {
  const { low, high: top } = slice.value ?? { low: { value: 0 }, high: { value: 0 } };
  return slicedAt.value ?? (low.value + top.value) / 2;
});
const words = computed(() => settings.words({ value: stands.value, unit: "mm" }));

const drag = useDrag(
  (event) => (props.bottom - pixelsIn(event)[1]) / scale.value,
  () => undefined,
);
watch(drag.held, (up) => {
  if (up !== null) sliceAt(up);
});

function key(event: KeyboardEvent): void {
  const step = arrowStep(event, settings.length);
  const number = slice.value?.number ?? 1;
  const beside = (by: number) => slices.value.find((one) => one.number === number + by);
  if (step) sliceAt((at.value ?? stands.value) + step[0] + step[1]);
  else if (event.key === "PageUp") sliceAt(beside(1)?.low.value ?? high.value);
  else if (event.key === "PageDown") sliceAt(beside(-1)?.low.value ?? 0);
  else if (event.key === "Home") sliceAt(0);
  else if (event.key === "End") sliceAt(high.value);
  else if (event.key === "Escape" && at.value !== null) whole();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <g>
    <rect class="whole" :x="x - WIDE / 2" :width="WIDE" :y="top" :height="Math.max(0, bottom - top)" />
    <rect
      v-for="one in slices"
      :key="one.number"
      class="layer"
      :class="{ chosen: one.number === slice?.number }"
      :x="x - WIDE / 2"
      :width="WIDE"
      :y="y(one.high.value)"
      :height="Math.max(0, y(one.low.value) - y(one.high.value))"
    />
    <g
      class="handle held"
      role="slider"
      tabindex="0"
      aria-label="Slice at a height"
      aria-orientation="vertical"
      :aria-valuemin="0"
      :aria-valuemax="Math.round(high)"
      :aria-valuenow="Math.round(stands)"
      :aria-valuetext="`${words} up, layer ${slice?.number}`"
      @pointerenter="load(true)"
      @focus="load(true)"
      @pointerdown="drag.start"
      v-on="drag.on"
      @keydown="key"
    >
      <rect class="track" :x="x - 22" width="44" :y="top - 22" :height="bottom - top + 44" />
      <g class="knob" :class="{ slices: at !== null }" :transform="`translate(${x} ${y(stands)})`">
        <rect x="-17" y="-7" width="34" height="14" rx="7" />
        <path d="M-6 -2h12M-6 2h12" />
      </g>
    </g>
  </g>
</template>

<style scoped src="./carved.css"></style>
<style scoped>
.whole {
  fill: var(--panel);
  stroke: var(--crumb);
  stroke-width: 0.8;
}

.layer {
  fill: var(--sponge);
  stroke: var(--crumb);
  stroke-width: 0.8;
}

.layer.chosen {
  fill: var(--amber-line);
  fill-opacity: 0.5;
}

.track {
  fill: transparent;
}

.handle {
  cursor: ns-resize;
}

.knob rect {
  fill: var(--panel);
  stroke: var(--amber);
  stroke-width: 2.2;
}

.knob.slices rect,
.handle:hover .knob rect {
  fill: var(--tint);
}

.handle:focus-visible .knob rect {
  stroke-width: 4;
}

.knob path {
  stroke: var(--amber);
  stroke-width: 1.6;
}
</style>
