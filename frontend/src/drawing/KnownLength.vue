<script setup lang="ts">
/** A line over a photograph whose ends are dragged to what has been measured, or moved by keys. */
import { computed, ref, watch } from "vue";
import type { Corner } from "@/base/polygon";
import { useSettings } from "@/kitchen/settings";
import { useCarving } from "@/order/carving";
import { arrowStep, useDrag } from "./drag";

const props = defineProps<{
  /** Where a place of the view is in the drawing. */
  x: (mm: number) => number;
  y: (mm: number) => number;
  /** Which place of the view a pointer is at. */
  read: (event: PointerEvent) => Corner;
}>();
const emit = defineEmits<{ held: [at: Corner | null] }>();
const { ends } = useCarving();
const settings = useSettings();

const pulled = ref(0);
const drag = useDrag(
  (event) => props.read(event),
  (to) => {
    setEnd(pulled.value, to);
  },
);
watch(drag.held, (at) => {
  emit("held", at);
});
function setEnd(index: number, to: Corner): void {
  if (ends.value) ends.value = index ? [ends.value[0], to] : [to, ends.value[1]];
}
function begin(event: PointerEvent, index: number): void {
  pulled.value = index;
  drag.start(event);
}
function key(event: KeyboardEvent, index: number): void {
  const step = arrowStep(event, settings.length);
  const end = ends.value?.[index];
  if (!step || !end) return;
  setEnd(index, [end[0] + step[0], end[1] + step[1]]);
  event.preventDefault();
  event.stopPropagation();
}
const marked = computed(() =>
  (ends.value ?? []).map((end, index) => (drag.held.value && pulled.value === index ? drag.held.value : end)),
);
const line = computed(() =>
  marked.value.map(([right, high]) => `${props.x(right)} ${props.y(high)}`).join("L"),
);
</script>

<template>
  <g v-if="marked.length">
    <path :d="`M${line}`" />
    <g
      v-for="(end, index) in marked"
      :key="index"
      role="button"
      tabindex="0"
      :aria-label="`${index ? 'Second' : 'First'} end of the length you know`"
      @pointerdown="begin($event, index)"
      v-on="drag.on"
      @keydown="key($event, index)"
    >
      <circle :cx="x(end[0])" :cy="y(end[1])" r="22" />
      <path class="cross" :d="`M${x(end[0]) - 9} ${y(end[1])}h18M${x(end[0])} ${y(end[1]) - 9}v18`" />
    </g>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--trouble);
  stroke-width: 2;
}

circle {
  fill: transparent;
}

[role="button"] {
  cursor: move;
  touch-action: none;
  outline: none;
}

[role="button"]:hover .cross,
[role="button"]:focus-visible .cross {
  stroke-width: 4;
}
</style>
