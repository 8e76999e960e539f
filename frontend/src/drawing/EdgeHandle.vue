<script setup lang="ts">
/**
 * The left edge of the tier in hand, to be dragged: it changes the tin, or in Coats the disc where one sets the
 * side, and catches at the sizes the kitchen owns.
 */
import { computed, watch } from "vue";
import type { Document } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { useKit } from "@/kitchen/kit";
import { useSettings } from "@/kitchen/settings";
import { isPlate, ownOutline } from "@/order/kinds";
import { useOrder } from "@/order/order";
import { pixelsIn, snapTo, useDrag } from "./drag";
import { type Sheet, xAt, yAt } from "./layout";
import FractionSpans from "./FractionSpans.vue";

const props = defineProps<{
  /** By its disc or card, where it has one. */
  byPlate?: boolean;
  sheet: Sheet;
  outside: { half: number; z0: number; z1: number };
}>();
const emit = defineEmits<{ hold: []; release: [] }>();
const order = useOrder();
const kit = useKit();
const settings = useSettings();
const handbook = useHandbook();
const CATCH = 9;

const tier = computed(() => order.document?.design.tiers[order.tier]);
const plate = computed(() =>
  props.byPlate && tier.value && isPlate(tier.value.final) ? tier.value.final : null,
);
const own = computed(() => Boolean(tier.value && ownOutline(tier.value)));
const what = computed(() => (plate.value ? "disc" : own.value ? "wide" : "tin"));
const size = computed(() => plate.value?.disc_diameter_mm ?? tier.value?.tin_diameter_mm ?? 0);
const owned = computed(() => {
  if (plate.value) return kit.kit?.discs_mm ?? [];
  if (own.value) return [];
  const shape = tier.value?.build.kind === "ball" ? "ball" : tier.value?.shape.kind;
  return (kit.kit?.tins ?? []).filter((tin) => tin.shape === shape).map((tin) => tin.across_mm);
});

const x = (mm: number): number => xAt(props.sheet, -mm);
const y = (mm: number): number => yAt(props.sheet, mm);

/** How far what lies outside the tin or disc (coats, cover) reaches, as it was when the edge was taken hold of. */
let beyond = 0;
/** How far from the edge it was taken hold of, mm. */
let beside = 0;
const halfAt = (event: PointerEvent): number => (props.sheet.axis - pixelsIn(event)[0]) / props.sheet.scale;

function read(event: PointerEvent): number {
  const wanted = 2 * (halfAt(event) - beside - beyond);
  const step = settings.length === "in" ? 6.35 : 5;
  const reach = Math.max(step / 2, CATCH / props.sheet.scale);
  const { low, high } = handbook.limit(plate.value ? "disc_diameter_mm" : "tin_diameter_mm");
  const found = snapTo(wanted, owned.value, reach) ?? Math.round(wanted / step) * step;
  return Math.min(high, Math.max(low, Math.round(found * 100) / 100));
}

function set(draft: Document, value: number): void {
  const changed = draft.design.tiers[order.tier];
  if (!changed) return;
  if (plate.value && isPlate(changed.final)) changed.final.disc_diameter_mm = value;
  else changed.tin_diameter_mm = value;
}
const { held, start, on } = useDrag(read, (value) => {
  if (Math.abs(value - size.value) < 0.01) return;
  order.edit((draft) => {
    set(draft, value);
  });
});
function grab(event: PointerEvent): void {
  beyond = props.outside.half - size.value / 2;
  beside = halfAt(event) - props.outside.half;
  emit("hold");
  start(event);
}
/** While it is drawn out the cake is shown as it would be; let go of, it is, or it is as it was. */
watch(held, (value, before) => {
  if (value !== null)
    order.tryOut((draft) => {
      set(draft, value);
    });
  else if (before !== null) {
    emit("release");
    order.endTrial();
  }
});
const shown = computed(() => {
  if (held.value === null) return null;
  const half = beyond + held.value / 2;
  const have = owned.value.includes(held.value) ? ", owned" : "";
  return { half, words: `${settings.words({ value: held.value, unit: "mm" })} ${what.value}${have}` };
});
</script>

<template>
  <g>
    <rect
      class="grip"
      :x="x(outside.half) - 30"
      :y="Math.min(y(outside.z1), y((outside.z0 + outside.z1) / 2) - 22)"
      width="44"
      :height="Math.max(44, (outside.z1 - outside.z0) * sheet.scale)"
      @pointerdown="grab"
      v-on="on"
    >
      <title>Drag to change the {{ own && !plate ? "width" : what }}</title>
    </rect>
    <g
      v-if="!shown"
      class="knob"
      :transform="`translate(${x(outside.half)} ${y((outside.z0 + outside.z1) / 2)})`"
    >
      <rect x="-5" y="-15" width="10" height="30" rx="5" />
      <path d="M-1.8 -6v12M1.8 -6v12" />
    </g>
    <template v-if="shown">
      <path class="to" :d="`M${x(shown.half)} ${y(outside.z0) + 6}V${y(outside.z1) - 12}`" />
      <text :x="x(shown.half)" :y="y(outside.z1) - 18" text-anchor="middle"
        ><FractionSpans :text="shown.words"
      /></text>
    </template>
  </g>
</template>

<style scoped>
.grip {
  fill: transparent;
  cursor: ew-resize;
  touch-action: none;
}

.grip:hover + .knob rect {
  fill: var(--tint);
}

.knob {
  pointer-events: none;
}

.knob rect {
  fill: var(--panel);
  stroke: var(--amber-line);
  stroke-width: 2;
}

.knob path {
  stroke: var(--amber-line);
  stroke-width: 1.4;
}

.to {
  stroke: var(--amber);
  stroke-width: 2.4;
  stroke-dasharray: 6 4;
  pointer-events: none;
}

text {
  fill: var(--ink);
  font: 600 17px var(--serif);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 5px;
  pointer-events: none;
}
</style>
