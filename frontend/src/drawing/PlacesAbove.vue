<script setup lang="ts">
/**
 * The top of the tier below seen from above, with the supports of the tier in hand: each is dragged, or moved with the
 * arrow keys. Beside it the cake at the angle where it tips.
 */
import { computed, ref } from "vue";
import { tenth, within } from "@/base/round";
import { useElementSize } from "@/base/size";
import { useSettings } from "@/kitchen/settings";
import { useJoint } from "@/order/joints";
import { arrowStep, pixelsIn, useDrag } from "./drag";
import FrontMark from "./FrontMark.vue";
import { closed } from "./layout";
import TippedCake from "./TippedCake.vue";
import FractionSpans from "./FractionSpans.vue";
import { hexOf } from "./tone";

const { order, joint, supports, place } = useJoint();
const settings = useSettings();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const HEAD = 30;
const FARTHEST_MM = 400;

const colour = computed(() => {
  const at = (joint.value?.tier ?? 0) - (joint.value?.inside ? 1 : 2);
  return hexOf(order.plan?.section.tiers[at]?.paint ?? "#fff");
});
const reach = computed(() => {
  const points = [...(joint.value?.board ?? []), ...(joint.value?.below ?? [])];
  const xs = points.map(([x = 0]) => x);
  const ys = points.map(([, y = 0]) => y);
  return { left: Math.min(...xs), right: Math.max(...xs), front: Math.min(...ys), back: Math.max(...ys) };
});
const room = computed(() => ({ wide: size.width.value * 0.56, high: size.height.value - HEAD - 26 }));
const scale = computed(() => {
  const { left, right, front, back } = reach.value;
  return Math.max(0.05, Math.min((room.value.wide - 60) / (right - left), room.value.high / (back - front)));
});
const middle = computed(() => {
  const { left, right, back } = reach.value;
  return { x: room.value.wide / 2 - ((left + right) / 2) * scale.value, y: HEAD + back * scale.value };
});
const x = (mm: number): number => middle.value.x + mm * scale.value;
const y = (mm: number): number => middle.value.y - mm * scale.value;
const line = (points: readonly (readonly number[])[]): string => closed(points, x, y);
const radius = computed(() => ((joint.value?.across.value ?? 0) / 2) * scale.value);
/** What they carry: each alike, or from the least to the most. */
const words = computed(() => {
  if (!joint.value) return "";
  const { count, many } = joint.value;
  const loads = supports.value.map(([, one]) => one.carries).toSorted((a, b) => a.value - b.value);
  const [least, most] = [loads[0], loads.at(-1)].map((load) => (load ? settings.words(load) : ""));
  const each = least === most ? `each carries ${most}` : `they carry ${least} to ${most}`;
  return `${count.value} ${many}; ${each}`;
});
/** Each is told apart by what it carries where that differs, and by its number where it does not. */
const alike = computed(() => !words.value.includes(" to "));
const moving = ref(-1);

function read(event: PointerEvent): [number, number] {
  const [across, down] = pixelsIn(event);
  const right = (across - middle.value.x) / scale.value;
  const back = (middle.value.y - down) / scale.value;
  return [tenth(within(-FARTHEST_MM, right, FARTHEST_MM)), tenth(within(-FARTHEST_MM, back, FARTHEST_MM))];
}

const drag = useDrag(read, ([right, back]) => {
  const [, one] = supports.value[moving.value] ?? [];
  if (one && Math.hypot(one.x - right, one.y - back) > 0.5) place(moving.value, right, back);
});
function begin(event: PointerEvent, index: number): void {
  if (joint.value?.inside) return;
  moving.value = index;
  drag.start(event);
}

function nudge(event: KeyboardEvent, index: number): void {
  const step = arrowStep(event, settings.length);
  const [, one] = supports.value[index] ?? [];
  if (!step || !one || joint.value?.inside) return;
  event.preventDefault();
  event.stopPropagation();
  place(index, tenth(one.x + step[0]), tenth(one.y + step[1]));
}

/** Why a place that was set will not do. */
const why = computed(
  () =>
    order.plan?.checks.find((check) => check.code === "stack.refused" && check.tier === order.tier + 1)?.text,
);

const shown = computed(() =>
  supports.value.map(([name, one], index) => {
    const held = drag.held.value !== null && moving.value === index ? drag.held.value : null;
    const carries = settings.words(one.carries);
    const side = (mm: number, more: string, less: string): string =>
      `${settings.words({ value: Math.abs(mm), unit: "mm" })} to the ${mm < 0 ? less : more}`;
    const [right, back] = held ?? [one.x, one.y];
    const away = Math.max(1, Math.hypot(right, back) * scale.value);
    const beside = Math.abs(right) * scale.value > 0.6 * away;
    const out = (Math.max(5, radius.value) + (beside ? 6 : 15)) / away;
    // In front of the front mark there is no room: there it stands behind the support.
    const sign = !beside && y(back * (1 + out)) > y(reach.value.front) - 12 ? -1 : 1;
    return {
      name,
      index,
      x: x(right),
      y: y(back),
      // Its label stands outward of it, where there is room.
      label: {
        x: x(right * (1 + sign * out)),
        y: y(back * (1 + sign * out)) + 5,
        anchor: beside ? (right > 0 ? "start" : "end") : "middle",
        words: alike.value ? `${index + 1}` : carries,
      },
      refused: one.refused !== null,
      says: `Support ${index + 1}: ${side(one.x, "right", "left")}, ${side(one.y, "back", "front")}, carries ${carries}`,
    };
  }),
);
</script>

<template>
  <div ref="frame" class="above">
    <svg
      v-if="size.width.value && joint"
      :width="room.wide"
      :height="size.height.value"
      role="group"
      :aria-label="words"
    >
      <text class="head" x="16" y="20"><FractionSpans :text="words" /></text>
      <path class="below" :d="line(joint.below)" :fill="colour" />
      <path class="board" :d="line(joint.board)" />
      <g v-for="(hole, at) in joint.keep_out" :key="`h${at}`" class="hole">
        <circle
          :class="hole.what"
          :cx="x(hole.x)"
          :cy="y(hole.y)"
          :r="Math.max(hole.what === 'dowel' ? 4 : 3, hole.radius * scale)"
        >
          <title>{{ hole.what === "dowel" ? "The centre dowel" : "The hidden cavity" }}</title>
        </circle>
        <text
          v-if="hole.what === 'cavity' && hole.radius * scale > 24"
          :x="x(hole.x)"
          :y="y(hole.y) + 22"
          text-anchor="middle"
        >
          room
        </text>
      </g>
      <FrontMark :x="x(0)" :y="y(reach.front) + 3" />
      <g
        v-for="one in shown"
        :key="one.name"
        class="support"
        :class="{ refused: one.refused, fixed: joint.inside }"
        :tabindex="joint.inside ? undefined : 0"
        :role="joint.inside ? 'img' : 'button'"
        :aria-label="one.says"
        @pointerdown="begin($event, one.index)"
        v-on="drag.on"
        @keydown="nudge($event, one.index)"
      >
        <circle class="grip" :cx="one.x" :cy="one.y" r="22" />
        <circle :cx="one.x" :cy="one.y" :r="Math.max(5, radius)" class="seen" />
        <text :x="one.label.x" :y="one.label.y" :text-anchor="one.label.anchor">
          <FractionSpans :text="one.label.words" />
        </text>
      </g>
    </svg>
    <p v-if="why" class="why" role="status">{{ why }}</p>
    <TippedCake class="tipped" />
  </div>
</template>

<style scoped>
.above {
  position: relative;
  display: flex;
  min-height: 0;
  overflow: hidden;
  border-top: 1px solid var(--rule);
}

.tipped {
  flex: 1;
  min-width: 0;
  border-left: 1px solid var(--rule);
}

.why {
  position: absolute;
  bottom: 8px;
  left: 12px;
  max-width: 44%;
  padding: 4px 8px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
  font-size: 15px;
}

.head,
.hole text {
  fill: var(--soft);
  font: 15px var(--sans);
}

.below {
  stroke: var(--ink);
  stroke-width: 1.4;
}

.board {
  fill: var(--foil);
  fill-opacity: 0.6;
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 7 5;
}

.hole circle {
  fill: var(--panel);
  stroke: var(--soft);
  stroke-width: 1.4;
  stroke-dasharray: 3 3;
}

.hole .dowel {
  fill: #d9b98a;
  stroke: var(--ink);
  stroke-dasharray: none;
}

.grip {
  fill: transparent;
}

.seen {
  fill: var(--mat);
  stroke: var(--teal);
  stroke-width: 2.4;
}

.support {
  cursor: grab;
  touch-action: none;
  outline: none;
}

.support.fixed {
  cursor: default;
}

.support text {
  fill: var(--ink);
  font: 600 15px var(--serif);
  paint-order: stroke;
  stroke: var(--panel);
  stroke-width: 3.5px;
  pointer-events: none;
}

.support:hover .seen,
.support:focus-visible .seen {
  stroke: var(--amber);
  stroke-width: 4;
}

.support.refused .seen {
  fill: var(--panel);
  stroke: var(--trouble);
  stroke-width: 4;
}
</style>
