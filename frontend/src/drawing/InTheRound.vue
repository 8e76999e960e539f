<script setup lang="ts">
/** A carved tier in the round, cut open as the half-section is: turned by dragging, by touch or by the arrow keys. */
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch } from "vue";
import { answered, api } from "@/api/client";
import type { RoundView } from "@/api/types";
import { useCarving } from "@/order/carving";
import { useLevels } from "@/order/levels";
import { bounded, FIRST, type Look } from "./look";
import { useMaterials } from "./materials";
import type { Shown, Stage } from "./round";

const props = defineProps<{ wide: number; high: number }>();
const { order, carving, slices, looked } = useCarving();
const { level } = useLevels();
const { crumbIn } = useMaterials();
const HEAD = 30;
const FOOT = 34;
const TURN = 0.01;
const KEY_TURN = 0.16;
const CLOSER = 1.12;
const MOVED = 4;

const canvas = ref<HTMLCanvasElement>();
const stage = shallowRef<Stage>();
const view = shallowRef<RoundView>();
const look = ref<Look>(FIRST);
const cutOpen = ref(true);
const shown = reactive<Shown>({ tins: false, gives: false });
const trouble = ref("");
const working = ref(false);
let gone = false;
let asked = 0;

onMounted(async () => {
  try {
    const { Stage } = await import("./round");
    if (gone || !canvas.value) return;
    const own = getComputedStyle(canvas.value);
    stage.value = new Stage(
      canvas.value,
      own.getPropertyValue("--ink").trim(),
      own.getPropertyValue("--amber-line").trim(),
      own.getPropertyValue("--teal").trim(),
    );
    place();
    show();
  } catch {
    trouble.value = "This browser draws nothing in the round. The flat drawings say all of it.";
  }
});
onBeforeUnmount(() => {
  gone = true;
  stage.value?.end();
});

/** The body as it is now; what comes of an older question is left aside. */
async function load(): Promise<void> {
  if (!order.document) return;
  const mine = (asked += 1);
  working.value = true;
  try {
    const body = { document: order.document, tier: order.tier, cut_open: cutOpen.value };
    const found = await answered(api.POST("/api/round", { body }));
    if (mine !== asked) return;
    view.value = found ?? undefined;
    trouble.value = "";
    show();
  } catch {
    if (mine === asked) trouble.value = "It could not be drawn in the round just now.";
  } finally {
    if (mine === asked) working.value = false;
  }
}
// A plan is there once all that takes long is worked out; what is drawn is asked for then.
watch([carving, cutOpen], () => void load(), { immediate: true });
watch(shown, show);
/** The most the cover may give, in per cent; nothing of one that is not laid out. */
const most = computed(() => Math.round(100 * (view.value?.stretch[0]?.most ?? 0)));
/** By how much it is taken in where it is painted darkest; nothing where either is eased alike. */
const mostIn = computed(() => Math.round(100 * (view.value?.stretch[0]?.most_in ?? 0)));
/** Whether what it gives is painted, and what the colours are is told below it. */
const told = computed(() => most.value > 0 && shown.gives);
const key = computed(() =>
  mostIn.value
    ? `Paper where the sheet lies as it was rolled, teal where it is taken in, by ${mostIn.value} per cent at its darkest, amber where it is drawn out, ink where by more than ${most.value} per cent`
    : `Paper where the sheet lies as it was rolled, amber at ${most.value} per cent, ink beyond`,
);

/** So wide, there is room for a name beside what can be chosen. */
const roomy = computed(() => (most.value ? 560 : view.value?.tins.length ? 400 : 230));

function show(): void {
  if (!stage.value || !view.value) return;
  // Cake is of the colour of its crumb, as in the half-section.
  const { hex: paint } = crumbIn(order.tier);
  const parts = view.value.parts.map((part) => (part.matter === "cake" ? { ...part, paint } : part));
  stage.value.show({ ...view.value, parts }, looked.value, shown);
  stage.value.turnTo(look.value);
  trace();
}
/** How high the canvas is. */
const tall = computed(() => Math.max(60, props.high - HEAD - (told.value ? FOOT : 0)));
function place(): void {
  stage.value?.resize(props.wide, tall.value);
  trace();
}
/** Where it is sliced, over the canvas. */
const cut = ref("");
function trace(): void {
  cut.value = stage.value && view.value && level.value ? stage.value.path(level.value) : "";
}
watch(() => [props.wide, props.high, told.value], place);
watch(looked, (number) => stage.value?.choose(number));
watch(level, trace);

function to(next: Partial<Look>): void {
  look.value = bounded({ ...look.value, ...next });
  stage.value?.turnTo(look.value);
  trace();
}
const closer = (times: number): void => {
  to({ far: look.value.far / times });
};

/** Every finger or pointer on it, where it last was. */
const down = new Map<number, readonly [number, number]>();
let moved = 0;
function begin(event: PointerEvent): void {
  canvas.value?.setPointerCapture(event.pointerId);
  canvas.value?.focus();
  if (down.size === 0) moved = 0;
  down.set(event.pointerId, [event.clientX, event.clientY]);
}
function move(event: PointerEvent): void {
  const before = down.get(event.pointerId);
  if (!before) return;
  const now = [event.clientX, event.clientY] as const;
  const [right, low] = [now[0] - before[0], now[1] - before[1]];
  moved += Math.hypot(right, low);
  if (down.size === 1) to({ turn: look.value.turn - right * TURN, tip: look.value.tip + low * TURN });
  else {
    const other = [...down].find(([id]) => id !== event.pointerId)?.[1] ?? now;
    const apart = (point: readonly [number, number]): number =>
      Math.max(1, Math.hypot(point[0] - other[0], point[1] - other[1]));
    closer(apart(now) / apart(before));
  }
  down.set(event.pointerId, now);
}
function end(event: PointerEvent): void {
  down.delete(event.pointerId);
  const frame = canvas.value?.getBoundingClientRect();
  if (!frame || moved > MOVED) return;
  const [right, low] = [event.clientX - frame.left, event.clientY - frame.top];
  looked.value = stage.value?.layerAt(right / frame.width, low / frame.height) ?? looked.value;
}

const KEYS: Record<string, () => void> = {
  ArrowLeft: () => {
    to({ turn: look.value.turn + KEY_TURN });
  },
  ArrowRight: () => {
    to({ turn: look.value.turn - KEY_TURN });
  },
  ArrowUp: () => {
    to({ tip: look.value.tip - KEY_TURN });
  },
  ArrowDown: () => {
    to({ tip: look.value.tip + KEY_TURN });
  },
  "+": () => {
    closer(CLOSER);
  },
  "-": () => {
    closer(1 / CLOSER);
  },
  Home: () => {
    to(FIRST);
  },
};
function keyed(event: KeyboardEvent): void {
  const act = KEYS[event.key];
  if (!act) return;
  act();
  event.preventDefault();
  event.stopPropagation();
}

const degrees = (radians: number): number => Math.round((radians * 180) / Math.PI);
const says = computed(
  () =>
    `The carved tier in the round, ${slices.value.length} layers${cutOpen.value ? ", cut open at its front right" : ""}. ` +
    `Turned ${((degrees(look.value.turn) % 360) + 360) % 360}°, seen from ${degrees(look.value.tip)}° above. ` +
    "Arrow keys turn it, plus and minus bring it nearer and take it away, Home puts it back.",
);
</script>

<template>
  <div
    class="round"
    :data-shown="view && stage && !working ? '' : undefined"
    :style="{ width: `${wide}px`, height: `${high}px` }"
  >
    <div class="head">
      <span v-if="wide > roomy || working">{{ working ? "Being worked …" : "In the round" }}</span>
      <label><input v-model="cutOpen" type="checkbox" /> cut open</label>
      <label v-if="view?.tins.length"><input v-model="shown.tins" type="checkbox" /> tins</label>
      <label v-if="most" :title="key"> <input v-model="shown.gives" type="checkbox" /> what it gives </label>
    </div>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <p v-if="told" class="key">
      <template v-if="mostIn">taken in <span class="ramp in"></span></template>
      as rolled <span class="ramp" :class="{ out: mostIn }"></span>
      {{ mostIn ? "drawn out" : `${most} per cent` }} <span class="over"></span>
      {{ mostIn ? "tears" : "more" }}
    </p>
    <canvas
      ref="canvas"
      :style="{ height: `${tall}px` }"
      role="img"
      tabindex="0"
      :aria-label="says"
      @pointerdown="begin"
      @pointermove="move"
      @pointerup="end"
      @pointercancel="end"
      @wheel.prevent="closer($event.deltaY < 0 ? CLOSER : 1 / CLOSER)"
      @keydown="keyed"
    ></canvas>
    <svg v-if="cut" class="cut" aria-hidden="true" :width="wide" :height="tall">
      <path :d="cut" />
    </svg>
  </div>
</template>

<style scoped>
.round {
  position: relative;
  overflow: hidden;
}

.head {
  display: flex;
  align-items: center;
  gap: 18px;
  height: 30px;
  padding: 0 16px;
  white-space: nowrap;
  color: var(--soft);
  font: 15px var(--sans);
}

.head label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 30px;
  cursor: pointer;
}

.key {
  position: absolute;
  bottom: 8px;
  left: 16px;
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--soft);
  font: 15px var(--sans);
  white-space: nowrap;
  pointer-events: none;
}

.ramp,
.over {
  width: 64px;
  height: 14px;
  border: 1px solid var(--ink);
  background: linear-gradient(90deg, #fbf7ee, var(--amber-line));
}

.ramp.in,
.ramp.out {
  width: 44px;
}

.ramp.in {
  background: linear-gradient(90deg, var(--teal), #fbf7ee);
}

.over {
  width: 14px;
  background: var(--ink);
}

.wrong {
  margin: 4px 16px;
}

canvas {
  display: block;
  width: 100%;
  cursor: grab;
  touch-action: none;
}

.cut {
  position: absolute;
  top: 30px;
  left: 0;
  pointer-events: none;
}

.cut path {
  fill: none;
  stroke: var(--amber-line);
  stroke-width: 1.6;
}

canvas:active {
  cursor: grabbing;
}

canvas:focus-visible {
  outline: 3px solid var(--amber-line);
  outline-offset: -3px;
}
</style>
