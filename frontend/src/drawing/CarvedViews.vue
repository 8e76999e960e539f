<script setup lang="ts">
/**
 * The view a tier is carved to, its corners to be dragged or moved by keys, with the layers it is cut out of; and beside
 * it the layer in hand from above, as it is cut at its lower and at its upper face.
 */
import { computed, ref } from "vue";
import { boundsOf, type Corner, middleAfter } from "@/base/polygon";
import { useElementSize } from "@/base/size";
import { useSettings } from "@/kitchen/settings";
import { useCarving } from "@/order/carving";
import { useDrag } from "./drag";

const { order, points, slices, slice, looked, scale, fromFront, setPoint, addAfter, remove, canRemove } =
  useCarving();
const settings = useSettings();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const HEAD = 30;
const EDGE = 26;

const room = computed(() => ({ wide: Math.round(size.width.value * 0.56), high: size.height.value }));
const bounds = computed(() => boundsOf(points.value));
/** Pixels to a millimetre of the drawing. */
const zoom = computed(() => {
  const { left, right, low, high } = bounds.value;
  const across = Math.max(60, room.value.wide - 2 * EDGE - 20);
  const up = Math.max(60, room.value.high - HEAD - 2 * EDGE);
  return Math.max(0.02, Math.min(across / Math.max(1, right - left), up / Math.max(1, high - low)));
});
const axis = computed(() => room.value.wide / 2);
const table = computed(() => {
  const { low, high } = bounds.value;
  return (room.value.high + HEAD + (high - low) * zoom.value) / 2;
});
const middle = computed(() => (bounds.value.left + bounds.value.right) / 2);
const x = (mm: number): number => axis.value + (mm - middle.value) * zoom.value;
const y = (mm: number): number => table.value - (mm - bounds.value.low) * zoom.value;
/** A height of the cake, as it lies in the drawing. */
const up = (mm: number): number => table.value - (mm / scale.value.up) * zoom.value;

const moving = ref(-1);
function read(event: PointerEvent): Corner {
  const box = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
  const right = (event.clientX - (box?.left ?? 0) - axis.value) / zoom.value + middle.value;
  const high = (table.value - (event.clientY - (box?.top ?? 0))) / zoom.value + bounds.value.low;
  return [Math.round(right * 10) / 10, Math.round(high * 10) / 10];
}
const drag = useDrag(read, (to) => {
  const [was = 0, high = 0] = points.value[moving.value] ?? [];
  if (Math.hypot(was - to[0], high - to[1]) * zoom.value > 1) setPoint(moving.value, to);
});
function begin(event: PointerEvent, index: number): void {
  moving.value = index;
  drag.start(event);
  (event.currentTarget as SVGElement).focus();
}

const KEYS: Record<string, Corner> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
function key(event: KeyboardEvent, index: number): void {
  const [right = 0, high = 0] = points.value[index] ?? [];
  const way = KEYS[event.key];
  if (way) {
    const step = settings.length === "in" ? 3.175 : 2;
    setPoint(index, [right + (way[0] * step) / scale.value.across, high + (way[1] * step) / scale.value.up]);
  } else if (event.key === "Delete" || event.key === "Backspace") remove(index);
  else return;
  event.preventDefault();
  event.stopPropagation();
}

const corners = computed(() =>
  points.value.map((point, index): Corner => {
    const held = moving.value === index ? drag.held.value : null;
    const [right = 0, high = 0] = held ?? point;
    return [right, high];
  }),
);
const path = computed(
  () => `M${corners.value.map(([right, high]) => `${x(right).toFixed(1)} ${y(high).toFixed(1)}`).join("L")}Z`,
);
const words = (mm: number): string => settings.words({ value: Math.abs(mm), unit: "mm" });
const shown = computed(() =>
  corners.value.map(([right, high], index) => {
    const off = (right - middle.value) * scale.value.across;
    const climbed = (high - bounds.value.low) * scale.value.up;
    const [less, more] = fromFront.value ? ["front", "back"] : ["left", "right"];
    const [between, above] = middleAfter(corners.value, index);
    return {
      x: x(right),
      y: y(high),
      says: `Corner ${index + 1}: ${words(off)} to the ${off < 0 ? less : more}, ${words(climbed)} up`,
      new: { x: x(between), y: y(above) },
    };
  }),
);
/** Where there are many corners there is no room for a grip between each two. */
const few = computed(() => corners.value.length <= 24);
const bands = computed(() =>
  slices.value.map((one) => ({
    number: one.number,
    y: up(one.high.value),
    high: up(one.low.value) - up(one.high.value),
    chosen: one.number === slice.value?.number,
  })),
);

const above = computed(() => {
  const wide = size.width.value - room.value.wide;
  const outer = order.plan?.section.tiers[order.tier]?.seen_from_above ?? [];
  const across = Math.max(1, ...outer.map(([right = 0]) => Math.abs(right)));
  const along = Math.max(1, ...outer.map(([, back = 0]) => Math.abs(back)));
  const free = room.value.high - HEAD - 2 * EDGE - 22;
  const fits = Math.min((wide / 2 - EDGE) / across, free / 2 / along);
  const at = { x: wide / 2, y: (room.value.high + HEAD - 22) / 2 };
  const line = (ring: readonly (readonly number[])[]): string =>
    `M${ring.map(([right = 0, back = 0]) => `${(at.x + right * fits).toFixed(1)} ${(at.y - back * fits).toFixed(1)}`).join("L")}Z`;
  return {
    wide,
    at,
    front: at.y + along * fits + 4,
    outer: line(outer),
    bottom: slice.value?.bottom.map(line).join("") ?? "",
    top: slice.value?.top.map(line).join("") ?? "",
  };
});
const says = computed(() => {
  if (!slice.value) return "";
  const { number, wide, long } = slice.value;
  return `Layer ${number}: ${settings.words(wide)} × ${settings.words(long)}`;
});
</script>

<template>
  <div ref="frame" class="views">
    <svg
      v-if="size.width.value"
      :width="room.wide"
      :height="room.high"
      role="group"
      :aria-label="`The view from the ${fromFront ? 'front' : 'side'}`"
    >
      <text class="head" x="16" y="20">
        {{ fromFront ? "Every section across is this" : "Carved to this, from the side" }}
      </text>
      <clipPath id="carved-view"><path :d="path" /></clipPath>
      <path class="body" :d="path" />
      <g clip-path="url(#carved-view)">
        <rect
          v-for="band in bands"
          :key="band.number"
          class="layer"
          :class="{ chosen: band.chosen }"
          x="0"
          :width="room.wide"
          :y="band.y"
          :height="Math.max(0, band.high)"
          @click="looked = band.number"
        />
      </g>
      <path class="edge" :d="path" />
      <path class="table" :d="`M12 ${table}H${room.wide - 12}`" />
      <template v-if="few">
        <g
          v-for="(one, index) in shown"
          :key="`n${index}`"
          class="new"
          role="button"
          tabindex="0"
          :aria-label="`Another corner after corner ${index + 1}`"
          @click="addAfter(index)"
          @keydown.enter.prevent="addAfter(index)"
        >
          <circle class="grip" :cx="one.new.x" :cy="one.new.y" r="16" />
          <circle class="seen" :cx="one.new.x" :cy="one.new.y" r="4.5" />
        </g>
      </template>
      <g
        v-for="(one, index) in shown"
        :key="index"
        class="corner"
        role="button"
        tabindex="0"
        :aria-label="one.says"
        @pointerdown="begin($event, index)"
        @pointermove="drag.move"
        @pointerup="drag.end"
        @pointercancel="drag.giveUp"
        @keydown="key($event, index)"
        @dblclick="canRemove && remove(index)"
      >
        <circle class="grip" :cx="one.x" :cy="one.y" :r="few ? 22 : 12" />
        <circle class="seen" :cx="one.x" :cy="one.y" :r="few ? 8 : 5" />
      </g>
    </svg>
    <svg
      v-if="size.width.value && slice"
      class="above"
      :width="above.wide"
      :height="room.high"
      role="img"
      :aria-label="`${says}, from above`"
    >
      <text class="head" x="16" y="20">{{ says }}</text>
      <path class="outer" :d="above.outer" />
      <path class="bottom" :d="above.bottom" />
      <path class="top" :d="above.top" />
      <path class="cross" :d="`M${above.at.x - 7} ${above.at.y}h14M${above.at.x} ${above.at.y - 7}v14`" />
      <path class="front" :d="`M${above.at.x} ${above.front}l-7 11h14Z`" />
      <text class="head" :x="above.at.x + 14" :y="above.front + 11">front</text>
      <path class="bottom" :d="`M16 ${room.high - 15}h26`" />
      <text class="head" x="50" :y="room.high - 10">lower face</text>
      <path class="top" :d="`M${above.wide / 2 + 16} ${room.high - 15}h26`" />
      <text class="head" :x="above.wide / 2 + 50" :y="room.high - 10">upper face</text>
    </svg>
  </div>
</template>

<style scoped>
.views {
  display: flex;
  min-height: 0;
  overflow: hidden;
  border-top: 1px solid var(--rule);
}

.above {
  border-left: 1px solid var(--rule);
}

.head {
  fill: var(--soft);
  font: 15px var(--sans);
}

.body {
  fill: var(--panel);
}

.layer {
  fill: var(--sponge);
  stroke: var(--crumb);
  stroke-width: 0.8;
  cursor: pointer;
}

.layer.chosen {
  fill: #e0b36a;
}

.edge {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
  stroke-linejoin: round;
  pointer-events: none;
}

.table {
  stroke: var(--wood);
  stroke-width: 2;
}

.grip {
  fill: transparent;
}

.seen {
  fill: var(--tint);
  stroke: var(--amber);
  stroke-width: 2.4;
}

.new .seen {
  fill: var(--panel);
  stroke-width: 1.6;
}

.corner {
  cursor: move;
  touch-action: none;
  outline: none;
}

.new {
  cursor: copy;
  outline: none;
}

.corner:hover .seen,
.new:hover .seen,
.corner:focus-visible .seen,
.new:focus-visible .seen {
  fill: var(--amber-line);
  stroke-width: 4;
}

.outer {
  fill: none;
  stroke: var(--soft);
  stroke-dasharray: 3 4;
}

.bottom {
  fill: var(--sponge);
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linejoin: round;
}

.top {
  fill: none;
  stroke: var(--crumb);
  stroke-width: 1.8;
  stroke-dasharray: 8 5;
}

.cross {
  stroke: var(--ink);
}

.front {
  fill: var(--ink);
}
</style>
