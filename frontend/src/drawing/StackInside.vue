<script setup lang="ts">
/**
 * What holds the cake from inside: supports and dowel in the cut half, and a plumb line from the middle of the weight
 * that stands on the joint in hand.
 */
import { computed } from "vue";
import { useJoint } from "@/order/joints";
import { useDesk } from "@/ui/desk";
import { path, type Sheet, shifted, xAt, yAt } from "./layout";
import { rodsOf } from "./rods";
import { hexOf } from "./tone";

const props = defineProps<{ sheet: Sheet; most: number }>();
const { order, below } = useJoint();
const desk = useDesk();

const rods = computed(() =>
  (order.plan ? rodsOf(order.plan) : []).map((rod) => ({
    ...rod,
    drawn: {
      d: path(rod.outline, props.sheet),
      fill: hexOf(rod.kind),
      transform: shifted(rod.off, props.sheet),
    },
  })),
);
/** Where the weight's middle hangs, and the plane below it, in pixels. */
const plumb = computed(() => {
  const plan = order.plan;
  if (!plan) return null;
  const off = plan.section.tiers[order.tier]?.off?.[0] ?? 0;
  const low = below.value?.level.value ?? 0;
  const up = low + (below.value?.middle_up.value ?? plan.stack.middle_up.value);
  return { x: xAt(props.sheet, off), low: yAt(props.sheet, low), up: yAt(props.sheet, up) };
});
/** How far the top may stand off the middle, to scale: a line from the base board up, beside the axis. */
const lean = computed(() => {
  const stack = order.plan?.stack;
  if (!stack || stack.lean.value <= 0) return "";
  const { sheet } = props;
  const [foot, top] = [yAt(sheet, stack.base_thickness.value), yAt(sheet, stack.height.value) - 14];
  return `M${sheet.axis} ${foot}L${xAt(sheet, stack.lean.value)} ${top}`;
});
</script>

<template>
  <g class="inside">
    <path
      v-for="rod in rods"
      :key="rod.place"
      :class="[rod.kind, { lit: desk.lit.startsWith(rod.place) }]"
      v-bind="rod.drawn"
      v-on="desk.lights(rod.place)"
    />
    <path v-if="lean" class="lean" :d="lean"><title>How far it may lean, to scale</title></path>
    <g v-if="plumb" class="plumb">
      <path :d="`M${plumb.x} ${plumb.up}V${plumb.low}`" />
      <path :d="`M${plumb.x - 9} ${plumb.up}a9 9 0 0 1 18 0Z`" class="upper" />
      <path :d="`M${plumb.x - 9} ${plumb.up}a9 9 0 0 0 18 0Z`" class="lower" />
      <title>The middle of the weight</title>
    </g>
  </g>
</template>

<style scoped>
.support,
.dowel {
  stroke: var(--teal);
  stroke-width: 1.6;
  opacity: 0.88;
}

.dowel {
  stroke: var(--ink);
}

.lit {
  stroke: var(--amber);
  stroke-width: 3;
  opacity: 1;
}

.lean {
  fill: none;
  stroke: var(--trouble);
  stroke-width: 1.6;
  stroke-dasharray: 8 4;
}

.plumb path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
}

.plumb .upper {
  fill: var(--panel);
}

.plumb .lower {
  fill: var(--ink);
}

.plumb {
  pointer-events: none;
}
</style>
