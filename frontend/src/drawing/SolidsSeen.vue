<script setup lang="ts">
/** The solids a tier is built of, from the side or from above: they are dragged, or moved by keys. */
import { computed, ref } from "vue";
import { boundsOf } from "@/base/polygon";
import { useSettings } from "@/kitchen/settings";
import { useLevels } from "@/order/levels";
import { kindsOf } from "@/order/kinds";
import { useSolids } from "@/order/solids";
import { arrowStep, pixelsIn, useDrag } from "./drag";
import FrontMark from "./FrontMark.vue";
import { closed } from "./layout";

const props = defineProps<{ wide: number; high: number }>();
const { solids, at, held, from, carving, times, move } = useSolids();
const { slicedAt } = useLevels();
const settings = useSettings();
const HEAD = 30;
const EDGE = 26;
const BELOW = 26;
type Ring = readonly (readonly number[])[];

const side = computed(() => from.value === "side");
const seen = computed(() =>
  (carving.value?.solids ?? []).map((one) => ({
    out: one.cut_out,
    rings: side.value ? one.side : one.above,
  })),
);
const whole = computed<readonly Ring[]>(() => (side.value ? (carving.value?.seen ?? []) : []));
const bounds = computed(() => {
  const all = [...seen.value.flatMap((one) => one.rings), ...whole.value].flat();
  return boundsOf(
    all.length
      ? all
      : [
          [0, 0],
          [1, 1],
        ],
  );
});
/** Pixels to a millimetre. */
const zoom = computed(() => {
  const { left, right, low, high } = bounds.value;
  const across = Math.max(60, props.wide - 2 * EDGE);
  const up = Math.max(60, props.high - HEAD - BELOW - EDGE);
  return Math.min(across / Math.max(1, right - left), up / Math.max(1, high - low));
});
const middle = computed(() => (bounds.value.left + bounds.value.right) / 2);
const table = computed(() => {
  const { low, high } = bounds.value;
  return (props.high + HEAD - BELOW + (high - low) * zoom.value) / 2 + low * zoom.value;
});
const x = (mm: number): number => props.wide / 2 + (mm - middle.value) * zoom.value;
const y = (mm: number): number => table.value - mm * zoom.value;
/** Where the foot of all of it is. */
const foot = computed(() => boundsOf(whole.value.flat()).low);
const path = (rings: readonly Ring[]): string => rings.map((ring) => closed(ring, x, y)).join("");

const begun = ref<readonly [number, number]>([0, 0]);
const drag = useDrag(
  (event): [number, number] => {
    const [right, down] = pixelsIn(event);
    return [right - begun.value[0], down - begun.value[1]];
  },
  ([right, down]) => {
    if (Math.hypot(right, down) > 2) by(right / zoom.value, -down / zoom.value);
  },
);
function begin(event: PointerEvent, index: number): void {
  held.value = index;
  begun.value = pixelsIn(event);
  drag.start(event);
}

/** Move the solid that is held so far to the right and up, or to the back, as it is drawn. */
function by(right: number, up: number): void {
  const scale = times.value ?? 1;
  move(at.value, { x_mm: right / scale, [side.value ? "z_mm" : "y_mm"]: up / scale });
}

function key(event: KeyboardEvent, index: number): void {
  const step = arrowStep(event, settings.length);
  if (step) {
    held.value = index;
    by(...step);
  } else if (event.key === "Enter" || event.key === " ") held.value = index;
  else return;
  event.preventDefault();
  event.stopPropagation();
}

const moved = (index: number): string | undefined =>
  index === at.value && drag.held.value ? `translate(${drag.held.value.join(" ")})` : undefined;
const rows = computed(() => new Map(kindsOf("build/solids").map((row) => [row.kind, row.words])));
const words = (mm: number): string => settings.words({ value: mm, unit: "mm" });
const says = (index: number): string => {
  const one = solids.value[index];
  if (!one) return "";
  const right = one.x_mm ?? 0;
  const back = one.y_mm ?? 0;
  const where = [
    `${words(Math.abs(right))} to the ${right < 0 ? "left" : "right"}`,
    `${words(Math.abs(back))} to the ${back < 0 ? "front" : "back"}`,
    `${words(one.z_mm ?? 0)} up`,
  ];
  return `Solid ${index + 1}, ${rows.value.get(one.kind) ?? one.kind}: ${where.join(", ")}`;
};
/** The one that is held is drawn over the others. */
const order = computed(() =>
  seen.value
    .map((one, index) => ({ ...one, index }))
    .sort((a, b) => Number(a.index === at.value) - Number(b.index === at.value)),
);
</script>

<template>
  <svg
    :width="wide"
    :height="high"
    role="group"
    :aria-label="`The solids from ${side ? 'the side' : 'above'}`"
  >
    <text x="16" y="20">
      {{ wide < 260 ? "From" : "Built of these, from" }} {{ side ? "the side" : "above" }}
    </text>
    <path class="body" :d="path(whole)" />
    <path
      v-if="slicedAt !== null && whole.length"
      class="sliced"
      :d="`M12 ${y(foot + slicedAt)}H${wide - 12}`"
    />
    <path v-if="side" class="table" :d="`M12 ${y(0)}H${wide - 12}`" />
    <g
      v-for="one in order"
      :key="one.index"
      class="solid held"
      :class="{ out: one.out, chosen: one.index === at }"
      role="button"
      tabindex="0"
      :aria-label="says(one.index)"
      :aria-pressed="one.index === at"
      :transform="moved(one.index)"
      @pointerdown="begin($event, one.index)"
      v-on="drag.on"
      @keydown="key($event, one.index)"
    >
      <path :d="path(one.rings)" />
    </g>
    <FrontMark v-if="!side" :x="x(0)" :y="y(bounds.low) + 4" />
  </svg>
</template>

<style scoped src="./carved.css"></style>
<style scoped>
.solid path {
  fill: var(--sponge);
  fill-opacity: 0.35;
  fill-rule: evenodd;
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-linejoin: round;
}

.out path {
  fill: var(--panel);
  fill-opacity: 0.7;
  stroke-dasharray: 5 4;
}

.solid:hover path,
.solid:focus-visible path {
  stroke: var(--amber);
  stroke-width: 2.4;
}

.chosen path {
  fill: var(--amber-line);
  fill-opacity: 0.35;
  stroke: var(--amber);
  stroke-width: 2.6;
}
</style>
