<script setup lang="ts">
/**
 * A day sheet as a drawing: time runs down, the places of the kitchen are columns, and everything is a ribbon that
 * passes from place to place. Where hands are on it, its edge is inked and its name stands beside it.
 */
import { computed, nextTick, ref, shallowRef, watch } from "vue";
import { useElementSize } from "@/base/size";
import { clockWords, dayWords, hourWords, momentCode } from "@/base/time";
import { widthIn } from "@/drawing/lines";
import { drawSheet, type Entry, type Label, type Ribbon, type Sheet, type Way } from "./daySheet";

const props = defineProps<{
  sheet: Sheet | null;
  now: Date;
  selected: string;
  /** When the step selected would start, while that is tried. */
  wanted?: string;
  label: string;
  drawing: string;
}>();
const emit = defineEmits<{
  select: [id: string];
  move: [by: number];
  /** A piece of work is to start at another moment. */
  reschedule: [id: string, start: Date];
}>();

const HEAD = 40;
const STEP_MIN = 5;
const NUDGE_MIN = 15;
const MINUTE_MS = 60_000;
/** A drag is longer than a hand that trembles. */
const LEAST_DRAG = 6;
const MINUTES_WIDE = 62;
const SANS = '"Instrument Sans Variable", system-ui, sans-serif';
const nameWidth = widthIn(`16px ${SANS}`);
/** Room for the widest hour, as this person writes it, beside the drawing. */
const MARGIN = widthIn(`15px ${SANS}`)(clockWords(new Date(2000, 11, 20, 22, 0))) + 22;
const frame = ref<HTMLElement>();
const { width } = useElementSize(frame);
const drawn = computed(() =>
  props.sheet?.entries.length && width.value > 0 ? drawSheet(props.sheet, width.value, MARGIN) : null,
);
const started = computed(() => props.sheet?.entries.some((one) => new Date(one.start) <= props.now));
const over = computed(() => props.sheet?.until.every((one) => new Date(one.due) < props.now));
const nowY = computed(() => drawn.value?.axis.y(props.now) ?? 0);
const chosen = computed(() => props.sheet?.entries.find((one) => one.id === props.selected));

/** A name that fits beside its minutes: its end says of which tier or colour it is, so it is cut in the middle. */
function fitted({ ribbon, width }: Label): string {
  const room = width - MINUTES_WIDE;
  const name = ribbon.entry.name;
  let [shown, letters] = [name, name.length];
  while (letters > 5 && nameWidth(shown) > room) {
    letters -= 1;
    const end = Math.floor(letters * 0.45);
    shown = `${name.slice(0, letters - end).trimEnd()}…${name.slice(-end).trimStart()}`;
  }
  return shown;
}

const isLit = (way: Way): boolean => way.from === props.selected || way.to === props.selected;
const ways = computed(() => drawn.value?.ways.filter((way) => way.always || isLit(way)) ?? []);
const wordsX = computed(() => drawn.value?.columns.find((one) => one.words)?.words?.x ?? MARGIN);

/** Where several things are due, their hours stand at the edge, out of the way of names. */
const alone = computed(() => props.sheet?.until.length === 1);

function key(event: KeyboardEvent): void {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (!by) return;
  event.preventDefault();
  event.stopPropagation();
  if (!event.altKey) emit("move", by);
  else if (chosen.value && canMove(chosen.value)) {
    const from = props.wanted ?? chosen.value.start;
    emit("reschedule", chosen.value.id, new Date(new Date(from).getTime() + by * NUDGE_MIN * MINUTE_MS));
  }
}

/** Work that has not begun can be moved. */
const canMove = (entry: Entry): boolean => entry.works && !entry.state;

/** A piece of work that is being dragged, and by how much. */
const dragged = shallowRef<{ ribbon: Ribbon; from: number; by: number }>();
const ghost = computed(() => {
  const drag = dragged.value;
  if (drag && drawn.value && Math.abs(drag.by) >= LEAST_DRAG) {
    const y = drag.ribbon.y + drag.by;
    return { ...drag.ribbon, y, start: rounded(drawn.value.axis.at(y)) };
  }
  const wanted = props.wanted && drawn.value?.ribbons.find((one) => one.id === props.selected);
  return wanted && drawn.value && props.wanted
    ? { ...wanted, y: drawn.value.axis.y(new Date(props.wanted)), start: new Date(props.wanted) }
    : undefined;
});
const rounded = (moment: Date): Date =>
  new Date(Math.round(moment.getTime() / MINUTE_MS / STEP_MIN) * STEP_MIN * MINUTE_MS);

/** A finger scrolls the page; it moves a step by the fields beside the drawing. */
function grab(event: PointerEvent, ribbon: Ribbon): void {
  if (event.pointerType === "touch" || event.button !== 0 || !canMove(ribbon.entry)) return;
  event.preventDefault();
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  dragged.value = { ribbon, from: event.clientY, by: 0 };
}

function drag(event: PointerEvent): void {
  if (dragged.value) dragged.value = { ...dragged.value, by: event.clientY - dragged.value.from };
}

function drop(): void {
  const [moved, to] = [dragged.value, ghost.value];
  dragged.value = undefined;
  if (moved && to && Math.abs(moved.by) >= LEAST_DRAG) emit("reschedule", moved.ribbon.id, to.start);
}

/** The step selected stays in sight, also when it moves to another hour. */
watch([() => props.selected, () => chosen.value?.start], async ([id]) => {
  await nextTick();
  frame.value?.querySelector(`[data-step="${CSS.escape(id)}"]`)?.scrollIntoView({ block: "nearest" });
});
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
  <div ref="frame" class="days" tabindex="0" role="group" :aria-label="label" @keydown="key">
    <slot />
    <template v-if="drawn && sheet">
      <svg class="head" :width="drawn.width" :height="HEAD" aria-hidden="true">
        <text v-for="one in drawn.columns" :key="one.key" :x="one.lanes" y="26" class="place">
          {{ one.title }}
        </text>
      </svg>
      <svg class="sheet" :width="drawn.width" :height="drawn.axis.height" role="img" :aria-label="drawing">
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
          <rect x="0" :y="fold.y + 2" :width="drawn.width" :height="fold.height - 4" fill="var(--shelf)" />
          <rect
            x="0"
            :y="fold.y + 2"
            :width="drawn.width"
            :height="fold.height - 4"
            fill="url(#clock-fold)"
          />
        </g>
        <g v-for="hour in drawn.axis.hours" :key="`hour ${hour.y}`">
          <path :d="`M${MARGIN - 4} ${hour.y}H${drawn.width}`" class="hour" />
          <text :x="MARGIN - 10" :y="hour.y + 5" class="time">{{ hour.words }}</text>
        </g>
        <path
          v-for="one in drawn.columns.slice(1)"
          :key="`line ${one.key}`"
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
          :class="[
            ribbon.entry.look,
            ribbon.entry.state,
            { chosen: ribbon.id === selected, movable: canMove(ribbon.entry) },
          ]"
          :data-step="ribbon.id"
          @click="emit('select', ribbon.id)"
          @pointerdown="grab($event, ribbon)"
          @pointermove="drag"
          @pointerup="drop"
          @pointercancel="dragged = undefined"
        >
          <title>{{ ribbon.entry.name }}</title>
          <rect :x="ribbon.x" :y="ribbon.y" :width="ribbon.width" :height="ribbon.height" />
          <path v-if="ribbon.entry.works" :d="`M${ribbon.x} ${ribbon.y}v${ribbon.height}`" class="inked" />
          <text
            v-else-if="ribbon.entry.mark && ribbon.height > 22 && ribbon.width > 11"
            :x="ribbon.x + ribbon.width / 2"
            :y="ribbon.y + ribbon.height / 2 + 5"
            class="mark"
          >
            {{ ribbon.entry.mark }}
          </text>
        </g>
        <g v-for="fold in drawn.axis.folds" :key="`words ${fold.y}`">
          <text :x="wordsX + 4" :y="fold.y + fold.height / 2 + 5" class="folded">
            {{ fold.words }}
          </text>
        </g>
        <g v-for="one in sheet.until" :key="`${one.due} ${one.words}`" class="ready">
          <path :d="`M${MARGIN - 4} ${drawn.axis.y(new Date(one.due))}H${drawn.width}`" />
          <text
            :x="alone ? wordsX : drawn.width - 8"
            :y="drawn.axis.y(new Date(one.due)) - 6"
            :text-anchor="alone ? 'start' : 'end'"
          >
            {{ one.words }}
          </text>
        </g>
        <g
          v-for="one in drawn.labels"
          :key="`label ${one.ribbon.id}`"
          class="label"
          :class="{
            chosen: one.ribbon.id === selected,
            begun: one.ribbon.entry.state === 'begun',
            done: one.ribbon.entry.state === 'done' || new Date(one.ribbon.entry.end) < now,
          }"
          @click="emit('select', one.ribbon.id)"
        >
          <rect :x="one.x - 4" :y="one.y - 2" :width="one.width + 8" height="23" class="hit" />
          <path
            v-if="one.ribbon.entry.column === one.ribbon.entry.words"
            :d="`M${one.ribbon.x + one.ribbon.width + 1} ${one.ribbon.y + 1}L${one.x - 6} ${one.y + 9}`"
            class="leader"
          />
          <text :x="one.x" :y="one.y + 15">{{ fitted(one) }}</text>
          <text :x="one.x + one.width" :y="one.y + 15" class="min">
            {{ one.ribbon.entry.state === "done" ? "✓" : one.ribbon.entry.took }}
          </text>
        </g>
        <g v-for="day in drawn.axis.days" :key="`day ${day.y}`">
          <path :d="`M0 ${day.y + 30}H${drawn.width}`" class="rule" />
          <text x="14" :y="day.y + 22" class="day">{{ dayWords(day.date) }}</text>
        </g>
        <g v-if="ghost" class="ghost" aria-hidden="true">
          <rect :x="ghost.x - 2" :y="ghost.y" :width="ghost.width + 4" :height="ghost.height" />
          <text :x="ghost.x + ghost.width + 8" :y="ghost.y + 6">
            {{ hourWords(momentCode(ghost.start), now) }}
          </text>
        </g>
        <g v-if="started && !over" class="now">
          <path :d="`M0 ${nowY}H${drawn.width}`" />
          <path :d="`M0 ${nowY - 7}L11 ${nowY}L0 ${nowY + 7}Z`" class="arrow" />
        </g>
      </svg>
      <p class="unseen" aria-live="polite">{{ chosen?.name }}</p>
    </template>
  </div>
</template>

<style scoped>
.days {
  position: relative;
  height: 100%;
  overflow: auto;
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

.ribbon.movable {
  cursor: grab;
}

.ribbon.done {
  opacity: 0.45;
}

.ribbon.begun rect {
  stroke: var(--amber);
  stroke-width: 2.5;
}

.label.begun text {
  font-weight: 700;
}

.ghost rect {
  fill: none;
  stroke: var(--amber);
  stroke-dasharray: 5 4;
  stroke-width: 2.5;
}

.ghost text {
  font: 600 18px var(--serif);
  fill: var(--amber);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-linejoin: round;
  stroke-width: 6px;
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
  paint-order: stroke;
  stroke: var(--paper);
  stroke-linejoin: round;
  stroke-width: 5px;
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

:slotted(.empty),
:slotted(.trouble) {
  margin: 24px 30px;
  font-size: 18px;
}

:slotted(.trouble) {
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}
</style>

<style scoped src="./looks.css"></style>
