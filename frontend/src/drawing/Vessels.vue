<script setup lang="ts">
/** Every bowl as a vessel, all to one scale, its steps in the order they are taken out, the first at the top. */
import { computed, ref } from "vue";
import type { Bowl } from "@/api/types";
import { useElementSize } from "@/base/size";
import { useHandbook } from "@/kitchen/handbook";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "@/order/order";
import { useDesk } from "@/ui/desk";
import { bowlInHand, useBowl } from "./bowl";
import { useDrag } from "./drag";
import { brokenLines, isCutShort, widthIn } from "./lines";
import { isDark } from "./tone";
import { type Level, levelsOf } from "./vessels";

const order = useOrder();
const desk = useDesk();
const settings = useSettings();
const handbook = useHandbook();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const GAP = 22;
const TOP = 60;
const LABEL = 22;
const LINE = 19;

const bowls = computed(() => Object.entries(order.plan?.bowls ?? {}));
const most = computed(() => Math.max(1, ...bowls.value.map(([, bowl]) => bowl.mix.value)));
const wide = computed(() => {
  const count = Math.max(1, bowls.value.length);
  return Math.max(72, Math.min(210, (size.width.value - 40 - GAP * (count - 1)) / count));
});

/** A step of the bowl in hand is dragged past others, up or down; it is taken where it is let go. */
const { steps, mayMove, move } = useBowl();
const from = ref(-1);
const drag = useDrag(
  (event) => {
    const up = event.clientY - (frame.value?.getBoundingClientRect().top ?? 0);
    const own = vessels.value.find((one) => one.key === bowlInHand.value);
    const drawn = (own?.levels ?? []).filter((level) => level.kind === "step");
    const under = drawn.find((level) => up < level.y + level.high) ?? drawn.at(-1);
    return steps.value.findIndex((step) => step.key === under?.key);
  },
  (to) => move(from.value, to),
);

function grab(key: string, event: PointerEvent): void {
  from.value = steps.value.findIndex((step) => step.key === key);
  if (from.value >= 0 && steps.value.length > 1) drag.start(event);
}

/** Where the step that is held would go, as a line across its vessel. */
const gap = computed(() => {
  const to = drag.held.value;
  const own = vessels.value.find((one) => one.key === bowlInHand.value);
  const level = own?.levels.find((one) => one.key === steps.value[to ?? -1]?.key);
  if (to === null || !own || !level || !mayMove(from.value, to)) return null;
  return { x: own.x, y: to > from.value ? level.y + level.high : level.y };
});

/** The letters of the drawing, once they are there to be measured. */
const lettered = ref(0);
void document.fonts.ready.then(() => (lettered.value += 1));
const written = computed(() => {
  const of = (weight: number, size: number, family: string): ((text: string) => number) =>
    widthIn(
      `${weight} ${size}px ${getComputedStyle(document.documentElement).getPropertyValue(`--${family}`)}`,
    );
  return { drawn: lettered.value, plain: of(400, 15, "sans"), name: of(600, 16, "serif") };
});
const lines = (words: string, room = 2): string[] =>
  brokenLines(words, wide.value - 8, room, written.value.plain);

/** What a level says of itself: in full, or in fewer letters where that would be cut short. */
function fitted(level: Level, room: number): string[] {
  const full = lines(level.words, room);
  return isCutShort(full) ? lines(level.short, room) : full;
}

/** What stands below a vessel: the colour and its medium, or the medium alone. */
function titles(bowl: Bowl): [string[], string[]] {
  const room = wide.value + GAP - 8;
  const under = bowl.colour ? handbook.mediumName(bowl.medium) : "uncoloured";
  return [
    brokenLines(bowl.colour ?? bowl.name, room, 2, written.value.name),
    brokenLines(under, room, 2, written.value.plain),
  ];
}

/** Room below the vessels for the longest of their titles. */
const foot = computed(
  () => 28 + LINE * Math.max(2, ...bowls.value.map(([, bowl]) => titles(bowl).flat().length)),
);
const scale = computed(() => Math.max(0, size.height.value - TOP - foot.value) / most.value);
const floor = computed(() => size.height.value - foot.value);
const across = computed(() => bowls.value.length * (wide.value + GAP) - GAP);
const vessels = computed(() => {
  const plan = order.plan;
  if (!plan) return [];
  const left = Math.max(20, (size.width.value - across.value) / 2);
  return bowls.value.map(([key, bowl], index) => {
    let at = floor.value - bowl.mix.value * scale.value;
    const top = at;
    const levels = levelsOf(bowl, plan).map((level) => {
      const high = level.grams * scale.value;
      const said = fitted(level, high > 2 * LINE - 2 ? 2 : 1);
      const found = { ...level, y: at, high, said };
      at += high;
      return found;
    });
    const [name, under] = titles(bowl);
    return { key, bowl, levels, name, under, x: left + index * (wide.value + GAP), top };
  });
});
</script>

<template>
  <div ref="frame" class="room" tabindex="0" role="group" aria-label="The bowls">
    <svg
      v-if="size.width.value"
      :width="Math.max(size.width.value, across + 40)"
      :height="size.height.value"
      role="img"
      aria-label="The bowls to one scale, each step in the order it is taken out"
    >
      <defs>
        <pattern id="held" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V7" stroke="var(--ink)" stroke-width="1.6" opacity="0.4" />
        </pattern>
        <pattern id="dots" width="8" height="8" patternUnits="userSpaceOnUse">
          <circle cx="3" cy="3" r="1.2" fill="var(--ink)" opacity="0.45" />
        </pattern>
      </defs>
      <path class="table" :d="`M10 ${floor + 6}H${Math.max(size.width.value, across + 40) - 10}`" />
      <g
        v-for="one in vessels"
        :key="one.key"
        class="vessel"
        :class="{ chosen: bowlInHand === one.key }"
        :data-vessel="one.key"
        @click="bowlInHand = one.key"
      >
        <text class="mix" :x="one.x + wide / 2" :y="one.top - 18" text-anchor="middle">
          {{ settings.words(one.bowl.mix) }}
        </text>
        <g v-for="level in one.levels" :key="level.key">
          <rect
            :x="one.x"
            :y="level.y"
            :width="wide"
            :height="level.high"
            :fill="level.kind === 'step' || level.kind === 'reserve' ? one.bowl.hex : 'var(--panel)'"
            class="level"
            :class="{
              lit: desk.lit === level.figure.id,
              held: drag.held.value !== null && bowlInHand === one.key && steps[from]?.key === level.key,
              loose: level.kind === 'step' && bowlInHand === one.key && steps.length > 1,
            }"
            @pointerdown="level.kind === 'step' && bowlInHand === one.key && grab(level.key, $event)"
            v-on="{ ...drag.on, ...desk.lights(level.figure.id) }"
          />
          <rect
            v-if="level.kind !== 'step'"
            class="over"
            :x="one.x"
            :y="level.y"
            :width="wide"
            :height="level.high"
            :fill="level.kind === 'reserve' ? 'url(#held)' : 'url(#dots)'"
          />
          <text
            v-if="level.high > LABEL"
            class="step"
            :class="{ pale: isDark(one.bowl.hex) && (level.kind === 'step' || level.kind === 'reserve') }"
            :x="one.x + wide / 2"
            :y="
              level.y + Math.min(level.high / 2 + 5, 26) - (level.said.length - 1) * (level.high < 52 ? 9 : 0)
            "
            text-anchor="middle"
            :stroke="level.kind === 'step' || level.kind === 'reserve' ? one.bowl.hex : 'var(--panel)'"
          >
            <tspan
              v-for="(words, index) in level.said"
              :key="index"
              :x="one.x + wide / 2"
              :dy="index ? LINE : 0"
            >
              {{ words }}
            </tspan>
          </text>
        </g>
        <path
          class="glass"
          :d="`M${one.x} ${one.top - 10}V${floor}q0 6 6 6H${one.x + wide - 6}q6 0 6 -6V${one.top - 10}`"
        />
        <path v-if="gap && gap.x === one.x" class="gap" :d="`M${gap.x - 6} ${gap.y}h${wide + 12}`" />
        <text class="name" :x="one.x + wide / 2" :y="floor + 30" text-anchor="middle">
          <tspan v-for="(words, index) in one.name" :key="index" :x="one.x + wide / 2" :dy="index ? LINE : 0">
            {{ words }}
          </tspan>
        </text>
        <text
          class="risk"
          :x="one.x + wide / 2"
          :y="floor + 51 + LINE * (one.name.length - 1)"
          text-anchor="middle"
        >
          <tspan
            v-for="(words, index) in one.under"
            :key="index"
            :x="one.x + wide / 2"
            :dy="index ? LINE : 0"
          >
            {{ words }}
          </tspan>
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.room {
  position: relative;
  height: 100%;
  overflow: auto hidden;
}

svg {
  position: absolute;
  top: 0;
  left: 0;
}

.table {
  stroke: var(--wood);
  stroke-width: 8;
}

.vessel {
  cursor: pointer;
}

.level {
  stroke: var(--ink);
  stroke-width: 0.8;
}

.level.lit {
  stroke: var(--amber);
  stroke-width: 3.5;
}

.level.loose {
  cursor: grab;
  touch-action: none;
}

.level.held {
  opacity: 0.45;
  cursor: grabbing;
}

.gap {
  stroke: var(--amber-line);
  stroke-width: 6;
  pointer-events: none;
}

.over {
  pointer-events: none;
}

.glass {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.chosen .glass {
  stroke: var(--amber-line);
  stroke-width: 4;
}

text {
  fill: var(--ink);
  font: 15px var(--sans);
  pointer-events: none;
}

/* What is hatched or dotted stays clear of its words. */
.step {
  stroke-width: 5;
  stroke-linejoin: round;
  paint-order: stroke;
}

.step.pale {
  fill: var(--panel);
}

.mix {
  font: 600 21px var(--serif);
}

.name {
  font: 600 16px var(--serif);
}

.risk {
  fill: var(--soft);
}
</style>
