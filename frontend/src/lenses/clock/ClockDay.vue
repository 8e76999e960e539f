<script setup lang="ts">
/**
 * The day sheet as a drawing: time runs down, the places of the kitchen are columns, and every tier is a ribbon that
 * passes from place to place. Where hands are on it, its edge is inked and its name stands beside it.
 */
import { computed, nextTick, ref, watch } from "vue";
import { useElementSize } from "@/base/size";
import { clockWords, dayWords, hourWords } from "@/base/time";
import { widthIn } from "@/drawing/lines";
import { useSettings } from "@/kitchen/settings";
import { useClock } from "@/order/clock";
import { useOrder } from "@/order/order";
import { drawClock, type Way } from "./layout";
import { PLACES } from "./words";

const HEAD = 40;
const MINUTES_WIDE = 62;
const SANS = '"Instrument Sans Variable", system-ui, sans-serif';
const nameWidth = widthIn(`16px ${SANS}`);
/** Room for the widest hour, as this person writes it, beside the drawing. */
const MARGIN = widthIn(`15px ${SANS}`)(clockWords(new Date(2000, 11, 20, 22, 0))) + 22;
const order = useOrder();
const clock = useClock();
const settings = useSettings();
const frame = ref<HTMLElement>();
const { width } = useElementSize(frame);
const drawn = computed(() =>
  clock.clock && width.value > 0 ? drawClock(clock.clock, width.value, MARGIN) : null,
);
const started = computed(() => clock.clock && clock.now >= new Date(clock.clock.begins));
const over = computed(() => clock.clock && clock.now > new Date(clock.clock.due));
const nowY = computed(() => drawn.value?.axis.y(clock.now) ?? 0);

/** A name that fits beside its minutes: its end says of which tier or colour it is, so it is cut in the middle. */
function fitted(name: string): string {
  const room = (drawn.value?.label.width ?? 0) - MINUTES_WIDE;
  let [shown, letters] = [name, name.length];
  while (letters > 5 && nameWidth(shown) > room) {
    letters -= 1;
    const end = Math.floor(letters * 0.45);
    shown = `${name.slice(0, letters - end).trimEnd()}…${name.slice(-end).trimStart()}`;
  }
  return shown;
}

const isLit = (way: Way): boolean => way.from === clock.selected || way.to === clock.selected;
const ways = computed(() => drawn.value?.ways.filter((way) => way.always || isLit(way)) ?? []);

function key(event: KeyboardEvent): void {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (!by) return;
  event.preventDefault();
  event.stopPropagation();
  clock.move(by);
}

watch(
  () => clock.selected,
  async (id) => {
    await nextTick();
    frame.value?.querySelector(`[data-step="${CSS.escape(id)}"]`)?.scrollIntoView({ block: "nearest" });
  },
);
watch(
  () => drawn.value !== null,
  async (there) => {
    if (!there || !started.value) return;
    await nextTick();
    frame.value?.scrollTo({ top: Math.max(0, nowY.value - 120) });
  },
);
</script>

<template>
  <div
    ref="frame"
    class="days"
    tabindex="0"
    role="group"
    aria-label="The steps by the hour. Up and down select a step."
    @keydown="key"
  >
    <p v-if="clock.trouble" class="trouble" role="alert">{{ clock.trouble }}</p>
    <p v-if="!order.document?.due" class="empty">
      This order has no due hour yet.
      <RouterLink :to="{ name: 'order', params: { id: order.id, lens: 'brief' } }">
        Set its day and hour in Brief
      </RouterLink>
      and its steps are counted back from there.
    </p>
    <p v-else-if="!clock.clock && !clock.trouble" class="empty" role="status">Counting back the hours …</p>
    <template v-if="drawn && clock.clock">
      <svg class="head" :width="width" :height="HEAD" aria-hidden="true">
        <text v-for="one in drawn.columns" :key="one.place" :x="one.lanes" y="26" class="place">
          {{ PLACES[one.place] }}
        </text>
      </svg>
      <svg
        class="sheet"
        :width="width"
        :height="drawn.axis.height"
        role="img"
        aria-label="The order by the hour"
      >
        <defs>
          <pattern id="clock-soft" width="7" height="7" patternUnits="userSpaceOnUse">
            <rect width="7" height="7" fill="#f0d6a0" />
            <circle cx="2" cy="2" r="0.9" fill="#a9762f" />
            <circle cx="5.5" cy="5.5" r="0.9" fill="#a9762f" />
          </pattern>
          <pattern id="clock-cold" width="6" height="6" patternUnits="userSpaceOnUse">
            <rect width="6" height="6" fill="#a9c8cc" />
            <path d="M0 3H6" stroke="#6d9aa0" stroke-width="0.8" />
          </pattern>
          <pattern id="clock-fold" width="9" height="9" patternUnits="userSpaceOnUse">
            <path d="M-2 11L11 -2" stroke="var(--rule)" stroke-width="1.2" />
          </pattern>
        </defs>
        <g v-for="fold in drawn.axis.folds" :key="`fold ${fold.y}`">
          <rect x="0" :y="fold.y + 2" :width="width" :height="fold.height - 4" fill="var(--shelf)" />
          <rect x="0" :y="fold.y + 2" :width="width" :height="fold.height - 4" fill="url(#clock-fold)" />
        </g>
        <g v-for="hour in drawn.axis.hours" :key="`hour ${hour.y}`">
          <path :d="`M${MARGIN - 4} ${hour.y}H${width}`" class="hour" />
          <text :x="MARGIN - 10" :y="hour.y + 5" class="time">{{ hour.words }}</text>
        </g>
        <path
          v-for="one in drawn.columns.slice(1)"
          :key="`line ${one.place}`"
          :d="`M${one.x} 0V${drawn.axis.height}`"
          class="column"
        />
        <path
          v-for="way in ways"
          :key="`${way.from} ${way.to}`"
          :d="way.d"
          class="way"
          :class="{ lit: isLit(way) }"
        />
        <g
          v-for="(ribbon, index) in drawn.ribbons"
          :key="`${ribbon.id} ${index}`"
          class="ribbon"
          :class="[ribbon.step.look, { chosen: ribbon.id === clock.selected }]"
          :data-step="ribbon.id"
          @click="clock.selected = ribbon.id"
        >
          <title>{{ ribbon.step.name }}</title>
          <rect :x="ribbon.x" :y="ribbon.y" :width="ribbon.width" :height="ribbon.height" />
          <path v-if="ribbon.step.hands" :d="`M${ribbon.x} ${ribbon.y}v${ribbon.height}`" class="inked" />
          <text
            v-else-if="ribbon.step.tier && ribbon.height > 22 && ribbon.width > 11"
            :x="ribbon.x + ribbon.width / 2"
            :y="ribbon.y + ribbon.height / 2 + 5"
            class="mark"
          >
            {{ ribbon.step.tier }}
          </text>
        </g>
        <g v-for="fold in drawn.axis.folds" :key="`words ${fold.y}`">
          <text :x="drawn.label.x + 4" :y="fold.y + fold.height / 2 + 5" class="folded">
            {{ fold.words }}
          </text>
        </g>
        <g
          v-for="{ ribbon, y } in drawn.labels"
          :key="`label ${ribbon.id}`"
          class="label"
          :class="{ chosen: ribbon.id === clock.selected, done: new Date(ribbon.step.end) < clock.now }"
          @click="clock.selected = ribbon.id"
        >
          <rect :x="drawn.label.x - 4" :y="y - 2" :width="drawn.label.width + 8" height="23" class="hit" />
          <path
            v-if="ribbon.step.place === 'bench'"
            :d="`M${ribbon.x + ribbon.width + 1} ${ribbon.y + 1}L${drawn.label.x - 6} ${y + 9}`"
            class="leader"
          />
          <text :x="drawn.label.x" :y="y + 15">{{ fitted(ribbon.step.name) }}</text>
          <text :x="drawn.label.x + drawn.label.width" :y="y + 15" class="min">
            {{ ribbon.step.hands && settings.words(ribbon.step.hands) }}
          </text>
        </g>
        <g v-for="day in drawn.axis.days" :key="`day ${day.y}`">
          <path :d="`M0 ${day.y + 30}H${width}`" class="rule" />
          <text x="14" :y="day.y + 22" class="day">{{ dayWords(day.date) }}</text>
        </g>
        <g class="ready">
          <path :d="`M0 ${drawn.axis.y(new Date(clock.clock.due))}H${width}`" />
          <text :x="drawn.label.x" :y="drawn.axis.y(new Date(clock.clock.due)) - 6">
            due {{ hourWords(clock.clock.due, clock.now) }}
          </text>
        </g>
        <g v-if="started && !over" class="now">
          <path :d="`M0 ${nowY}H${width}`" />
          <path :d="`M0 ${nowY - 7}L11 ${nowY}L0 ${nowY + 7}Z`" class="arrow" />
        </g>
      </svg>
      <p class="unseen" aria-live="polite">{{ clock.chosen?.name }}</p>
    </template>
  </div>
</template>

<style scoped>
.days {
  position: relative;
  height: 100%;
  overflow: hidden auto;
  background: var(--paper);
}

.days:focus-visible {
  outline-offset: -3px;
}

.head {
  position: sticky;
  z-index: 1;
  top: 0;
  display: block;
  border-bottom: 1px solid var(--rule);
  background: var(--paper);
}

.sheet {
  display: block;
}

.place {
  font: 600 17px var(--serif);
  fill: var(--ink);
}

.hour {
  stroke: var(--rule);
  stroke-width: 1;
}

.column {
  stroke: var(--rule);
  stroke-width: 1.5;
  stroke-dasharray: 1.5 5;
}

.time {
  fill: var(--soft);
  font-size: 15px;
  text-anchor: end;
}

.way {
  fill: none;
  stroke: var(--edge);
  stroke-width: 1.2;
  opacity: 0.45;
}

.way.lit {
  stroke: var(--amber);
  stroke-width: 2.4;
  opacity: 1;
}

.ribbon {
  cursor: pointer;
}

.ribbon rect {
  stroke: var(--soft);
  stroke-width: 0.8;
}

.ribbon.chosen rect {
  stroke: var(--amber);
  stroke-width: 3;
}

.mark {
  font: 600 14px var(--serif);
  fill: var(--ink);
  text-anchor: middle;
}

.label {
  cursor: pointer;
  font-size: 16px;
  fill: var(--ink);
}

.label text {
  paint-order: stroke;
  stroke: var(--paper);
  stroke-linejoin: round;
  stroke-width: 5px;
}

.label:hover text,
.label.chosen text {
  stroke: none;
}

.label .min {
  font: 600 16px var(--serif);
  text-anchor: end;
}

.hit {
  fill: transparent;
}

.label:hover .hit {
  fill: var(--hover);
}

.label.chosen .hit {
  fill: var(--tint);
}

.label.done {
  fill: var(--soft);
}

.leader {
  stroke: var(--edge);
  stroke-width: 0.8;
}

.folded {
  font: 600 15px var(--serif);
  fill: var(--soft);
}

.ready path {
  stroke: var(--ink);
  stroke-width: 2.5;
}

.ready text {
  font: 600 18px var(--serif);
  fill: var(--ink);
}

.now path {
  stroke: var(--amber-line);
  stroke-width: 2.5;
}

.now .arrow {
  fill: var(--amber-line);
}

.day {
  font: 600 18px var(--serif);
  fill: var(--ink);
}

.rule {
  stroke: var(--ink);
  stroke-width: 1.5;
}

.empty,
.trouble {
  margin: 24px 30px;
  font-size: 18px;
}

.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}
</style>

<style scoped src="./looks.css"></style>
