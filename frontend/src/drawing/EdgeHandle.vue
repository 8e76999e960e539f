<script setup lang="ts">
/**
 * The left edge of the tier in hand, to be dragged: it changes the tin, or in Coats the disc where one sets the
 * side, and catches at the sizes the kitchen owns.
 */
import { computed } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import { useKit } from "@/kitchen/kit";
import { useSettings } from "@/kitchen/settings";
import { isPlate, ownOutline } from "@/order/kinds";
import { useOrder } from "@/order/order";
import { pixelsIn, snapTo, useDrag } from "./drag";
import { type Sheet, xAt, yAt } from "./layout";

const props = defineProps<{
  /** By its disc or card, where it has one. */
  byPlate?: boolean;
  sheet: Sheet;
  outside: { half: number; z0: number; z1: number };
}>();
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

function read(event: PointerEvent): number {
  const half = (props.sheet.axis - pixelsIn(event)[0]) / props.sheet.scale;
  // What lies outside the tin or disc (coats, cover) stays as thick as it is.
  const wanted = size.value + 2 * (half - props.outside.half);
  const step = settings.length === "in" ? 6.35 : 5;
  const reach = Math.max(step / 2, CATCH / props.sheet.scale);
  const { low, high } = handbook.limit(plate.value ? "disc_diameter_mm" : "tin_diameter_mm");
  const found = snapTo(wanted, owned.value, reach) ?? Math.round(wanted / step) * step;
  return Math.min(high, Math.max(low, Math.round(found * 100) / 100));
}

const { held, start, on } = useDrag(read, (value) => {
  if (Math.abs(value - size.value) < 0.01) return;
  const index = order.tier;
  order.edit((draft) => {
    const changed = draft.design.tiers[index];
    if (!changed) return;
    if (plate.value && isPlate(changed.final)) changed.final.disc_diameter_mm = value;
    else changed.tin_diameter_mm = value;
  });
});
const shown = computed(() => {
  if (held.value === null) return null;
  const half = props.outside.half + (held.value - size.value) / 2;
  const have = owned.value.includes(held.value) ? ", owned" : "";
  return { half, words: `${settings.words({ value: held.value, unit: "mm" })} ${what.value}${have}` };
});
</script>

<template>
  <g>
    <rect
      class="grip"
      :x="x(outside.half) - 9"
      :y="y(outside.z1)"
      width="18"
      :height="Math.max(8, (outside.z1 - outside.z0) * sheet.scale)"
      @pointerdown="start"
      v-on="on"
    >
      <title>Drag to change the {{ own && !plate ? "width" : what }}</title>
    </rect>
    <template v-if="shown">
      <path class="to" :d="`M${x(shown.half)} ${y(outside.z0) + 6}V${y(outside.z1) - 12}`" />
      <text :x="x(shown.half)" :y="y(outside.z1) - 18" text-anchor="middle">{{ shown.words }}</text>
    </template>
  </g>
</template>

<style scoped>
.grip {
  fill: transparent;
  cursor: ew-resize;
  touch-action: none;
}

.grip:hover {
  fill: var(--amber-line);
  opacity: 0.35;
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
