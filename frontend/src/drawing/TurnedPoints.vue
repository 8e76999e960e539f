<script setup lang="ts">
/** The corners of a turned tier on its cut edge, to be dragged. */
import { computed, ref } from "vue";
import { useOrder } from "@/order/order";
import { pixelsIn, useDrag } from "./drag";
import { type Sheet, xAt, yAt } from "./layout";

const props = defineProps<{ sheet: Sheet; most: number }>();
const order = useOrder();
const grabbed = ref(0);
const tier = computed(() => order.document?.design.tiers[order.tier]);
const planned = computed(() => order.plan?.tiers[order.tier]);
const points = computed(() => (tier.value?.build.kind === "turned" ? tier.value.build.points : []));
const half = computed(() => (planned.value?.layers.cake_diameter.value ?? 0) / 2);
const high = computed(() => planned.value?.layers.height.value ?? 1);
const bottom = computed(() => planned.value?.stack.bottom.value ?? 0);

const x = (out: number): number => xAt(props.sheet, out * half.value);
const y = (up: number): number => yAt(props.sheet, bottom.value + up * high.value);

function read(event: PointerEvent): { up: number; out: number } {
  const [right, down] = pixelsIn(event);
  const across = (right - props.sheet.axis) / (props.sheet.scale * half.value);
  const climbed = ((props.sheet.table - down) / props.sheet.scale - bottom.value) / high.value;
  const index = grabbed.value;
  const [below, above] = [points.value[index - 1], points.value[index + 1]];
  const up = !below ? 0 : !above ? 1 : Math.min(above.up - 0.02, Math.max(below.up + 0.02, climbed));
  const out = Math.min(1, Math.max(0.05, across));
  return { up: Math.round(up * 100) / 100, out: Math.round(out * 100) / 100 };
}

const { held, start, on } = useDrag(read, (value) => {
  const [index, number] = [order.tier, grabbed.value];
  order.edit((draft) => {
    const build = draft.design.tiers[index]?.build;
    if (build?.kind === "turned") build.points[number] = value;
  });
});

function grab(index: number, event: PointerEvent): void {
  grabbed.value = index;
  start(event);
}

const shown = computed(() =>
  points.value.map((point, index) => (held.value && index === grabbed.value ? held.value : point)),
);
</script>

<template>
  <g v-if="points.length">
    <path class="line" :d="`M${shown.map((point) => `${x(point.out)} ${y(point.up)}`).join('L')}`" />
    <circle
      v-for="(point, index) in shown"
      :key="index"
      :cx="x(point.out)"
      :cy="y(point.up)"
      r="9"
      @pointerdown="grab(index, $event)"
      v-on="on"
    >
      <title>Drag this point of the turned wall</title>
    </circle>
  </g>
</template>

<style scoped>
.line {
  fill: none;
  stroke: var(--amber);
  stroke-width: 1.6;
  stroke-dasharray: 5 4;
  pointer-events: none;
}

circle {
  fill: var(--tint);
  stroke: var(--amber);
  stroke-width: 2.4;
  cursor: move;
  touch-action: none;
}

circle:hover {
  fill: var(--amber-line);
}
</style>
