<script setup lang="ts">
/** The cake at the angle where it tips: what stands on the joint in hand about its edge, or all of it about its board. */
import { computed, ref } from "vue";
import { useElementSize } from "@/base/size";
import { useSettings } from "@/kitchen/settings";
import { useJoint } from "@/order/joints";
import { hexOf, leftOf } from "./tone";

const { order, below } = useJoint();
const settings = useSettings();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const HEAD = 30;

const angle = computed(() => below.value?.edge ?? order.plan?.stack.tips);
const words = computed(() => (angle.value ? `Tips at ${settings.words(angle.value)}` : ""));

/** Every outline in mm about the base's middle: a tier from its left edge over its top to its right. */
const tiers = computed(() =>
  (order.plan?.section.tiers ?? []).map((tier) => {
    const off = tier.off?.[0] ?? 0;
    const right = tier.outline.map(([across, up]): [number, number] => [off + across, up]);
    const left = leftOf(tier).map(([across, up]): [number, number] => [off - across, up]);
    return { hex: hexOf(tier.paint), points: [...right, ...left.reverse()] };
  }),
);
const board = computed((): [number, number][] => {
  const half = (order.plan?.stack.base_diameter.value ?? 0) / 2;
  const high = order.plan?.stack.base_thickness.value ?? 0;
  return [
    [half, 0],
    [half, high],
    [-half, high],
    [-half, 0],
  ];
});
/** The edge it turns about, in mm, and from which tier on it does. */
const turn = computed(() => {
  const first = below.value ? order.tier : 0;
  const low = below.value?.level.value ?? 0;
  const foot = tiers.value[first]?.points ?? [];
  const lowest = Math.min(...foot.map(([, up]) => up));
  const edge = below.value
    ? Math.max(0, ...foot.filter(([, up]) => up < lowest + 1).map(([across]) => across))
    : (board.value[0]?.[0] ?? 0);
  return { first, x: edge, z: low, degrees: angle.value?.value ?? 0 };
});
function turned([across, up]: readonly [number, number]): [number, number] {
  const radians = (turn.value.degrees * Math.PI) / 180;
  const [right, high] = [across - turn.value.x, up - turn.value.z];
  return [
    turn.value.x + right * Math.cos(radians) + high * Math.sin(radians),
    turn.value.z - right * Math.sin(radians) + high * Math.cos(radians),
  ];
}
const shapes = computed(() => [
  { hex: "var(--foil)", points: below.value ? board.value : board.value.map(turned) },
  ...tiers.value.map(({ hex, points }, index) => ({
    hex,
    points: index >= turn.value.first ? points.map(turned) : points,
  })),
]);
const box = computed(() => {
  const all = shapes.value.flatMap(({ points }) => points);
  const xs = all.map(([across]) => across);
  const zs = all.map(([, up]) => up);
  return { x0: Math.min(...xs), x1: Math.max(...xs), z0: Math.min(0, ...zs), z1: Math.max(...zs) };
});
const scale = computed(() => {
  const { x0, x1, z0, z1 } = box.value;
  const [wide, high] = [size.width.value - 40, size.height.value - HEAD - 24];
  return Math.max(0.02, Math.min(wide / (x1 - x0), high / (z1 - z0)));
});
const x = (mm: number): number =>
  size.width.value / 2 + (mm - (box.value.x0 + box.value.x1) / 2) * scale.value;
const y = (mm: number): number => size.height.value - 14 - (mm - box.value.z0) * scale.value;
const d = (points: readonly [number, number][]): string =>
  `M${points.map(([across, up]) => `${x(across).toFixed(1)} ${y(up).toFixed(1)}`).join("L")}Z`;
const plumb = computed(() => {
  const up = below.value?.middle_up.value ?? order.plan?.stack.middle_up.value ?? 0;
  const [across, high] = turned([off.value, turn.value.z + up]);
  return { x: x(across), up: y(high), low: y(turn.value.z) };
});
const off = computed(() => order.plan?.section.tiers[turn.value.first]?.off?.[0] ?? 0);
</script>

<template>
  <div ref="frame" class="frame">
    <svg
      v-if="size.width.value && angle"
      :width="size.width.value"
      :height="size.height.value"
      role="img"
      :aria-label="`${words}: the middle of the weight then stands over the edge`"
    >
      <text class="head" x="16" y="20">{{ words }}</text>
      <path class="table" :d="`M8 ${y(0)}H${size.width.value - 8}`" />
      <path v-for="(shape, at) in shapes" :key="at" :d="d(shape.points)" :style="{ fill: shape.hex }" />
      <path class="plumb" :d="`M${plumb.x} ${plumb.up}V${plumb.low}`" />
      <circle :cx="plumb.x" :cy="plumb.up" r="5" />
    </svg>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  overflow: hidden;
}

svg {
  position: absolute;
  inset: 0;
}

.head {
  fill: var(--soft);
  font: 15px var(--sans);
}

path {
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-linejoin: round;
}

.table {
  stroke: var(--soft);
}

.plumb {
  stroke-dasharray: 5 4;
}

circle {
  fill: var(--ink);
}
</style>
