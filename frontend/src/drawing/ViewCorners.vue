<script setup lang="ts">
/** The view a tier is carved to, with the layers it is cut out of: its corners are dragged, or moved by keys. */
import { computed, ref, toRef, watch } from "vue";
import { curvePath, middleOf } from "@/base/curve";
import { type Corner } from "@/base/polygon";
import { tenth } from "@/base/round";
import { useSettings } from "@/kitchen/settings";
import { useCarving } from "@/order/carving";
import { useLevels } from "@/order/levels";
import { useSections } from "@/order/sections";
import { arrowStep, pixelsIn, useDrag } from "./drag";
import Closeness from "./Closeness.vue";
import KnownLength from "./KnownLength.vue";
import Magnifier from "./Magnifier.vue";
import { useView } from "./view";

const props = defineProps<{ wide: number; high: number }>();
const carving = useCarving();
const { points, smooth, bounds: own, corner, slices, slice, looked, scale, view, picture } = carving;
const { setPoint, setSmooth, addAfter, remove, canRemove } = carving;
const { slicedAt } = useLevels();
const settings = useSettings();
const NAMES = { side: "the side", front: "the front", above: "above" } as const;
const { sections, at } = useSections();
const heads = computed(() => {
  const several = sections.value.length;
  return {
    side: "Carved to this, from the side",
    front: several ? `Section ${at.value + 1} of ${several}` : "Every section across is this",
    above: "Carved to this, from above",
  };
});
/** Above it stand its name and its buttons. */
const HEAD = 52;
const EDGE = 26;
/** Where there are more corners there is no room for a grip between each two. */
const FEW = 24;

/** How high the photograph is to one across; it is known once the photograph has come. */
const tall = ref(0.75);
const href = computed(() => (picture.value ? `data:image/jpeg;base64,${picture.value.jpeg}` : ""));
watch(
  href,
  (source) => {
    if (!source) return;
    const image = new Image();
    image.onload = () => (tall.value = image.naturalHeight / image.naturalWidth);
    image.src = source;
  },
  { immediate: true },
);
/** The photograph under the view, in mm of the view. */
const under = computed(() => {
  const { wide_mm: wide, left_mm: left = 0, low_mm: low = 0 } = picture.value ?? { wide_mm: 0 };
  return wide ? { left, low, wide, high: wide * tall.value } : null;
});
/** All that is drawn. */
const bounds = computed(() => {
  const below = under.value;
  if (!below) return own.value;
  return {
    left: Math.min(own.value.left, below.left),
    right: Math.max(own.value.right, below.left + below.wide),
    low: Math.min(own.value.low, below.low),
    high: Math.max(own.value.high, below.low + below.high),
  };
});
const frame = ref<HTMLElement>();
/** Tracing asks for a closer look at a part of it. */
const {
  view: look,
  looksCloser,
  go,
  fit,
  heard,
} = useView(frame, { width: toRef(props, "wide"), height: toRef(props, "high") });
watch(view, fit);
/** Pixels to a millimetre where all of it is seen, and as it is looked at. */
const whole = computed(() => {
  const { left, right, low, high } = bounds.value;
  const across = Math.max(60, props.wide - 2 * EDGE - 20);
  const up = Math.max(60, props.high - HEAD - 2 * EDGE);
  return Math.max(0.02, Math.min(across / Math.max(1, right - left), up / Math.max(1, high - low)));
});
const zoom = computed(() => whole.value * look.value.zoom);
const table = computed(() => {
  const { low, high } = bounds.value;
  return ((props.high + HEAD + (high - low) * whole.value) / 2) * look.value.zoom + look.value.dy;
});
const axis = computed(() => (props.wide / 2) * look.value.zoom + look.value.dx);
const middle = computed(() => (bounds.value.left + bounds.value.right) / 2);
const x = (mm: number): number => axis.value + (mm - middle.value) * zoom.value;
const y = (mm: number): number => table.value - (mm - bounds.value.low) * zoom.value;
/** A height of the cake, as it lies in the drawing. */
const up = (mm: number): number => y(own.value.low + mm / scale.value.up);

const moving = ref(-1);
/** The end of a known length that is dragged. */
const pulled = ref<Corner | null>(null);
function read(event: PointerEvent): Corner {
  const [right, down] = pixelsIn(event);
  return [
    tenth((right - axis.value) / zoom.value + middle.value),
    tenth((table.value - down) / zoom.value + bounds.value.low),
  ];
}
const drag = useDrag(read, (to) => {
  const [was = 0, high = 0] = points.value[moving.value] ?? [];
  if (Math.hypot(was - to[0], high - to[1]) * zoom.value > 1) setPoint(moving.value, to);
});
function begin(event: PointerEvent, index: number): void {
  moving.value = corner.value = index;
  drag.start(event);
}

function key(event: KeyboardEvent, index: number): void {
  const [right = 0, high = 0] = points.value[index] ?? [];
  const step = arrowStep(event, settings.length);
  if (step) setPoint(index, [right + step[0] / scale.value.across, high + step[1] / scale.value.up]);
  else if (event.key === "Delete" || event.key === "Backspace") remove(index);
  else if (event.key === "s" || event.key === "S") setSmooth(index, !curved.value.has(index));
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
const curved = computed(() => new Set(smooth.value));
const path = computed(() => curvePath(corners.value, curved.value, x, y));
const words = (mm: number): string => settings.words({ value: Math.abs(mm), unit: "mm" });
const shown = computed(() =>
  corners.value.map(([right, high], index) => {
    const off = (right - (own.value.left + own.value.right) / 2) * scale.value.across;
    const climbed = (high - own.value.low) * scale.value.up;
    const [less, more] = view.value === "front" ? ["front", "back"] : ["left", "right"];
    const far = view.value === "above" ? "to the back" : "up";
    const [between, above] = middleOf(corners.value, curved.value, index);
    const name = curved.value.has(index) ? "Smooth corner" : "Corner";
    return {
      x: x(right),
      y: y(high),
      smooth: curved.value.has(index),
      says: `${name} ${index + 1}: ${words(off)} to the ${off < 0 ? less : more}, ${words(climbed)} ${far}`,
      new: { x: x(between), y: y(above) },
    };
  }),
);
/** What is dragged over a photograph is seen through a glass. */
const glass = computed(() => {
  const at = pulled.value ?? (moving.value >= 0 ? drag.held.value : null);
  return at && under.value ? { x: x(at[0]), y: y(at[1]) } : null;
});
/** A corner at which the line turns stands on its tip; a smooth one is round. */
const turned = (left: number, top: number, half: number): string =>
  `M${left - half} ${top}l${half} ${-half} ${half} ${half} ${-half} ${half}Z`;
const few = computed(() => corners.value.length <= FEW);
const bands = computed(() =>
  slices.value.map((one) => ({
    number: one.number,
    y: up(one.high.value),
    high: Math.max(0, up(one.low.value) - up(one.high.value)),
    chosen: one.number === slice.value?.number,
  })),
);
</script>

<template>
  <div ref="frame" class="frame" :class="{ closer: looksCloser }" v-bind="heard">
    <svg :width="wide" :height="high" role="group" :aria-label="`The view from ${NAMES[view]}`">
      <text v-if="!looksCloser" x="16" y="33">
        <template v-if="wide < 260">From {{ NAMES[view] }}</template>
        <template v-else>{{ heads[view] }}</template>
      </text>
      <clipPath id="carved-view"><path :d="path" /></clipPath>
      <g id="carved-scene">
        <image
          v-if="under"
          :href="href"
          :x="x(under.left)"
          :y="y(under.low + under.high)"
          :width="under.wide * zoom"
          :height="under.high * zoom"
          preserveAspectRatio="none"
        />
        <path v-if="under" class="body traced" :d="path" />
      </g>
      <path v-if="!under" class="ground" :class="{ cake: view === 'above' }" :d="path" />
      <g v-if="!under && view !== 'above'" clip-path="url(#carved-view)">
        <rect
          v-for="band in bands"
          :key="band.number"
          class="layer"
          :class="{ chosen: band.chosen }"
          x="0"
          :width="wide"
          :y="band.y"
          :height="band.high"
          @click="looked = band.number"
        />
      </g>
      <path v-if="!under" class="body edge" :d="path" />
      <path
        v-if="slicedAt !== null && view !== 'above'"
        class="sliced"
        :d="`M12 ${up(slicedAt)}H${wide - 12}`"
      />
      <path v-if="view !== 'above'" class="table" :d="`M12 ${y(own.low)}H${wide - 12}`" />
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
        class="corner held"
        :class="{ taken: index === corner }"
        role="button"
        tabindex="0"
        :aria-label="one.says"
        @pointerdown="begin($event, index)"
        @focus="corner = index"
        v-on="drag.on"
        @keydown="key($event, index)"
        @dblclick="canRemove && remove(index)"
      >
        <circle class="grip" :cx="one.x" :cy="one.y" :r="few ? 22 : 12" />
        <circle v-if="one.smooth" class="seen" :cx="one.x" :cy="one.y" :r="few ? 8 : 5" />
        <path v-else class="seen" :d="turned(one.x, one.y, few ? 10 : 6)" />
      </g>
      <KnownLength :x="x" :y="y" :read="read" @held="(at) => (pulled = at)" />
      <Magnifier v-if="glass" v-bind="glass" scene="carved-scene" :wide="wide" />
    </svg>
    <Closeness :closer="looksCloser" @go="go" @fit="fit" />
  </div>
</template>

<style scoped src="./carved.css"></style>
<style scoped>
.frame {
  position: relative;
  overflow: hidden;
}

.frame.closer {
  touch-action: none;
  cursor: grab;
}

.ground {
  fill: var(--panel);
}

.ground.cake {
  fill: var(--sponge);
}

.layer {
  fill: var(--sponge);
  stroke: var(--crumb);
  stroke-width: 0.8;
  cursor: pointer;
}

.layer.chosen {
  fill: var(--amber-line);
  fill-opacity: 0.5;
}

.edge {
  fill: none;
  pointer-events: none;
}

.traced {
  fill-opacity: 0.3;
  vector-effect: non-scaling-stroke;
}

.grip {
  fill: transparent;
}

.seen {
  fill: var(--tint);
  stroke: var(--amber);
  stroke-width: 2.4;
}

.corner.taken .seen {
  fill: var(--amber-line);
}

.new .seen {
  fill: var(--panel);
  stroke-width: 1.6;
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
</style>
