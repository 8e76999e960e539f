<script setup lang="ts">
/** The layer of a carved tier that is looked at, from above: as it is cut at its lower and at its upper face, or where it
 * is sliced between them. */
import { computed } from "vue";
import { useSettings } from "@/kitchen/settings";
import { useCarving } from "@/order/carving";
import { useSlicing } from "@/order/levels";
import FrontMark from "./FrontMark.vue";
import { closed } from "./layout";
import FractionSpans from "./FractionSpans.vue";
import SliceHandle from "./SliceHandle.vue";

const props = defineProps<{ wide: number; high: number }>();
const { order, slice, at, level, trouble, whole } = useSlicing();
const { baked } = useCarving();
const settings = useSettings();
const HEAD = 30;
const EDGE = 26;
const LINE = 22;
/** What the handle takes at the left. */
const HANDLE = 56;
/** So narrow, what the lines are is told one below the other, and how large the layer is stands in the panel alone. */
const NARROW = 300;

const narrow = computed(() => props.wide < NARROW);
const below = computed(() => (narrow.value ? 2 : 1) * LINE);
/** Where the line of the upper face is told: beside that of the lower one, or above it. */
const upper = computed(() => (narrow.value ? { x: 0, y: -LINE } : { x: props.wide / 2, y: 0 }));
/** The tin the layer alone is cut out of, from above; what lies between the two is carved off. */
const tin = computed(() => {
  const number = slice.value?.number ?? 0;
  const own = Object.values(baked.value?.tins ?? {}).find((one) => one.layers.includes(number));
  const beside = Object.values(own?.beside ?? {}).some((cut) => cut.layers.includes(number));
  return beside ? [] : (own?.edges[`layer_${number}`] ?? []);
});
/** Where it is named: its corner at the back right. */
const tinCorner = computed(() =>
  tin.value.reduce(
    ([right, back], [x = 0, y = 0]) => (x + y > right + back ? [x, y] : [right, back]),
    [-Infinity, -Infinity],
  ),
);
const openings = computed(() => order.plan?.tiers[order.tier]?.carving?.openings ?? {});
/** What is cut out of the layer, or at the height it is sliced, in the colour of what fills that. */
const emptied = computed(() => {
  const fill = (name: string): string => openings.value[name]?.hex ?? "var(--panel)";
  if (level.value) {
    const cut = Object.entries(level.value.cut_out);
    return cut.map(([name, whole]) => ({ name, fill: fill(name), whole, bottom: [], top: [] }));
  }
  if (at.value !== null && !trouble.value) return [];
  return Object.entries(slice.value?.cut_out ?? {}).map(([name, edges]) => ({
    name,
    fill: fill(name),
    ...edges,
  }));
});
const finished = computed(() => order.plan?.section.tiers[order.tier]?.seen_from_above ?? []);
const reach = computed(() => ({
  across: Math.max(1, ...finished.value.concat(tin.value).map(([right = 0]) => Math.abs(right))),
  along: Math.max(1, ...finished.value.concat(tin.value).map(([, back = 0]) => Math.abs(back))),
}));
const scale = computed(() =>
  Math.min(
    ((props.wide - HANDLE) / 2 - EDGE) / reach.value.across,
    (props.high - HEAD - 2 * EDGE - below.value) / 2 / reach.value.along,
  ),
);
const axis = computed(() => ({ x: (props.wide + HANDLE) / 2, y: (props.high + HEAD - below.value) / 2 }));
const x = (mm: number): number => axis.value.x + mm * scale.value;
const y = (mm: number): number => axis.value.y - mm * scale.value;
const outline = (rings: readonly (readonly (readonly number[])[])[] | undefined): string =>
  (rings ?? []).map((ring) => closed(ring, x, y)).join("");
const says = computed(() => {
  if (at.value !== null && trouble.value) return trouble.value;
  if (level.value) {
    const { up_mm, wide_mm, long_mm } = level.value;
    const [up, across, along] = [up_mm, wide_mm, long_mm].map((value) =>
      settings.words({ value, unit: "mm" }),
    );
    return narrow.value ? `${up} up` : `Sliced ${up} up: ${across} × ${along}`;
  }
  if (at.value !== null) return "Slicing it …";
  if (!slice.value) return "";
  const { number, wide, long } = slice.value;
  return narrow.value
    ? `Layer ${number}`
    : `Layer ${number}: ${settings.words(wide)} × ${settings.words(long)}`;
});
</script>

<template>
  <svg :width="wide" :height="high" role="group" :aria-label="`${says}, from above`">
    <text x="16" y="20"><FractionSpans :text="says" /></text>
    <template v-if="tin.length">
      <path class="tin" :d="outline([tin])" />
      <text :x="x(tinCorner[0] ?? 0) + 3" :y="y(tinCorner[1] ?? 0) - 3">tin</text>
    </template>
    <path class="outer" :d="outline([finished])" />
    <path v-if="level" class="body bottom" :d="outline(level.rings)" />
    <template v-else-if="at === null || trouble">
      <path class="body bottom" :d="outline(slice?.bottom)" />
      <path class="top" :d="outline(slice?.top)" />
    </template>
    <g v-for="one in emptied" :key="one.name" class="emptied">
      <path :d="outline(one.whole)" :fill="one.fill" />
      <path class="bottom" :d="outline(one.bottom)" />
      <path class="top" :d="outline(one.top)" />
    </g>
    <path class="cross" :d="`M${axis.x - 7} ${axis.y}h14M${axis.x} ${axis.y - 7}v14`" />
    <FrontMark :x="axis.x" :y="y(-reach.along) + 4" />
    <SliceHandle :x="34" :top="HEAD + EDGE" :bottom="high - EDGE - below" />
    <g
      v-if="at !== null"
      class="whole"
      role="button"
      tabindex="0"
      @click="whole"
      @keydown.enter.prevent="whole"
      @keydown.space.prevent="whole"
    >
      <rect x="8" :y="high - 44" width="150" height="44" />
      <text x="16" :y="high - 10">Its faces again</text>
    </g>
    <template v-else>
      <path class="body bottom" :d="`M16 ${high - 15}h26`" />
      <text x="50" :y="high - 10">lower face</text>
      <path class="top" :d="`M${upper.x + 16} ${high - 15 + upper.y}h26`" />
      <text :x="upper.x + 50" :y="high - 10 + upper.y">upper face</text>
    </template>
  </svg>
</template>

<style scoped src="./carved.css"></style>
<style scoped>
.outer {
  fill: none;
  stroke: var(--soft);
  stroke-dasharray: 3 4;
}

.top {
  fill: none;
  stroke: var(--crumb);
  stroke-width: 1.8;
  stroke-dasharray: 8 5;
}

.whole {
  cursor: pointer;
}

.whole rect {
  fill: transparent;
}

.whole text {
  fill: var(--amber);
}

.tin {
  fill: var(--sponge);
  fill-opacity: 0.28;
  stroke: var(--soft);
  stroke-width: 1.2;
}

.emptied path {
  stroke: var(--ink);
  stroke-width: 1.2;
}

.emptied path.bottom,
.emptied path.top {
  fill: none;
}

.cross {
  stroke: var(--ink);
}
</style>
