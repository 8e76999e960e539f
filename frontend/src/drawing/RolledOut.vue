<script setup lang="ts">
/** The pieces of the cover laid flat on the mat, to one scale; a piece lights up here, in the panel and on the cake. */
import { computed, ref } from "vue";
import type { Piece } from "@/api/types";
import { useElementSize } from "@/base/size";
import { useKit } from "@/kitchen/kit";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "@/order/order";
import { useDesk } from "@/ui/desk";
import FigureValue from "@/ui/FigureValue.vue";
import { edgePath, pieceSize } from "./pieces";
import FractionSpans from "./FractionSpans.vue";
import { hexOf } from "./tone";

const order = useOrder();
const desk = useDesk();
const kit = useKit();
const settings = useSettings();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const GAP = 26;
const LINE = 28;
const MOST = 3;

const cover = computed(() => order.plan?.tiers[order.tier]?.cover);
const place = computed(() => `${order.path}.cover.pieces`);
const asked = computed(() => order.document?.design.tiers[order.tier]?.cover);
const mat = computed(() => {
  if (asked.value?.kind === "printed")
    return { wide: asked.value.sheet_width_mm, high: asked.value.sheet_height_mm, words: "One sheet" };
  const own = kit.kit?.mat;
  return { wide: own?.width_mm ?? 0, high: own?.length_mm ?? 0, words: "Your mat" };
});

/** What lies on a mat by itself lies in its middle: so far from where it is laid, right and up. */
function spare({ x, y }: { x: number; y: number }, wide: number, high: number): [number, number] {
  return [Math.max(0, (mat.value.wide - wide) / 2 - x), Math.max(0, (mat.value.high - high) / 2 - y)];
}
const alone = (number: number): boolean =>
  (cover.value?.laid ?? []).filter((laid) => laid.mat === number).length === 1;

interface Lying {
  key: string;
  piece: Piece;
  mat: number;
  d: string;
  move: string;
  x: number;
  y: number;
  wide: number;
  high: number;
}

/** What to roll for every tier that is covered in one circle, so that all can be rolled in one go. */
const circles = computed(() =>
  (order.plan?.tiers ?? []).flatMap((tier, index) =>
    tier.cover?.roll_diameter ? [{ name: tier.name, index, figure: tier.cover.roll_diameter }] : [],
  ),
);
/** Room for the circles, and above the words of the mat. */
const HEAD = computed(() => 38 + LINE * Math.ceil(circles.value.length / columns.value));
const columns = computed(() => Math.max(1, Math.floor((size.width.value - 20) / 210)));

const lying = computed<Lying[]>(() =>
  (cover.value?.laid ?? []).flatMap((laid) => {
    const piece = cover.value?.pieces[laid.piece];
    if (!piece) return [];
    const [wide, high] = pieceSize(piece);
    const across = laid.turned ? high : wide;
    const tall = laid.turned ? wide : high;
    const [right, up] = alone(laid.mat) ? spare(laid, across, tall) : [0, 0];
    const turn = laid.turned ? `rotate(-90) translate(0 ${high})` : "";
    return [
      {
        key: laid.piece,
        piece,
        mat: laid.mat,
        d: edgePath(piece.corners),
        move: `translate(${laid.x + right} ${-laid.y - up}) ${turn}`,
        x: laid.x + right,
        y: laid.y + up,
        wide: across,
        high: tall,
      },
    ];
  }),
);
const mats = computed(() => Math.max(1, ...lying.value.map((one) => one.mat + 1)));
const shown = computed(() => Math.min(mats.value, MOST));
const reach = computed(() => ({
  wide: Math.max(mat.value.wide, ...lying.value.map((one) => one.x + one.wide)),
  high: Math.max(mat.value.high, ...lying.value.map((one) => one.y + one.high)),
}));
const scale = computed(() =>
  Math.max(
    0.05,
    Math.min(
      (size.width.value - 40 - GAP * (shown.value - 1)) / (reach.value.wide * shown.value),
      (size.height.value - HEAD.value - 14) / reach.value.high,
    ),
  ),
);
const left = computed(
  () => (size.width.value - shown.value * reach.value.wide * scale.value - GAP * (shown.value - 1)) / 2,
);
const sides = computed(() => {
  const side = (value: number): string => settings.words({ value, unit: "mm" });
  return `${side(mat.value.wide)} × ${side(mat.value.high)}`;
});
const words = computed(() => {
  const more = mats.value > shown.value ? `, ${mats.value - shown.value} more not shown` : "";
  return `${mat.value.words}, ${sides.value}${more}`;
});

function label(one: Lying): string {
  const side = (value: number): string => settings.words({ value, unit: "mm", rounding: "up" });
  const measures =
    Math.abs(one.wide - one.high) < 0.05 && one.piece.sizes.diameter
      ? `${side(one.wide)} across`
      : `${side(one.wide)} × ${side(one.high)}`;
  return measures;
}

/** In a narrower frame there is room for the sides of the mat alone. */
const SLIM = 230;
const slim = computed(() => size.width.value < SLIM);
/** How wide a letter of a name is, px: by the widest of them. */
const LETTER = 10;
/** The name of a piece as there is room for it: whole, or its number or letter alone; nothing where there is none. */
function nameOf(one: Lying): string {
  if (one.high * scale.value <= 20) return "";
  const short = /\w+$/.exec(one.piece.name)?.[0] ?? "";
  return [one.piece.name, short].find((words) => words.length * LETTER < one.wide * scale.value) ?? "";
}
/** Room for its measures below that. */
const roomy = (one: Lying): boolean => one.high * scale.value > 40 && one.wide * scale.value > 110;
</script>

<template>
  <div ref="frame" class="mat">
    <svg
      v-if="size.width.value"
      :width="size.width.value"
      :height="size.height.value"
      role="img"
      :aria-label="`The pieces laid flat. ${words}`"
    >
      <text class="head" :x="left" :y="HEAD - 10"><FractionSpans :text="slim ? sides : words" /></text>
      <g
        v-for="number in shown"
        :key="number"
        :transform="`translate(${left + (number - 1) * (reach.wide * scale + GAP)} ${HEAD + reach.high * scale}) scale(${scale})`"
      >
        <rect class="cloth" x="0" :y="-mat.high" :width="mat.wide" :height="mat.high" />
        <template v-for="(one, index) in lying" :key="index">
          <g
            v-if="one.mat === number - 1"
            class="piece"
            :class="{
              lit: desk.lit.startsWith(`${place}.${one.key}`) || desk.lit === `${order.path}.cover`,
            }"
            v-on="desk.lights(`${place}.${one.key}`)"
          >
            <g :transform="one.move">
              <path :d="one.d" :fill="hexOf(one.piece.paint)" class="edge" />
              <path
                v-for="(band, at) in one.piece.bands"
                :key="at"
                :d="edgePath(band.corners)"
                :fill="band.hex"
              />
              <path
                v-for="(mark, at) in one.piece.marks"
                :key="`m${at}`"
                class="fold"
                :d="`M${mark.x0} ${-mark.y0}L${mark.x1} ${-mark.y1}`"
              />
              <path :d="one.d" class="edge" fill="none" />
            </g>
            <g
              v-if="nameOf(one)"
              :transform="`translate(${one.x + one.wide / 2} ${-one.y - one.high / 2}) scale(${1 / scale})`"
            >
              <text class="name" text-anchor="middle" :y="roomy(one) ? -3 : 6">{{ nameOf(one) }}</text>
              <text v-if="roomy(one)" class="size" text-anchor="middle" y="16">
                <FractionSpans :text="label(one)" />
              </text>
            </g>
          </g>
        </template>
      </g>
    </svg>
    <ul v-if="circles.length" class="circles" :style="{ '--columns': columns }">
      <li v-for="one in circles" :key="one.index" :class="{ chosen: one.index === order.tier }">
        <button @click="order.tier = one.index">{{ one.name }}</button>
        <FigureValue :figure="one.figure" :label="`Roll out for ${one.name}, circle`" />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.mat {
  position: relative;
  min-height: 0;
  overflow: hidden;
  border: 0 solid var(--rule);
  border-width: 1px 0 0;
}

.beside > .mat {
  border-width: 0 0 0 1px;
}

svg {
  position: absolute;
  inset: 0;
}

.circles {
  position: absolute;
  top: 6px;
  right: 14px;
  left: 14px;
  display: grid;
  grid-template-columns: repeat(var(--columns), minmax(0, 1fr));
  column-gap: 20px;
}

.circles li {
  display: flex;
  gap: 8px;
  align-items: baseline;
  justify-content: space-between;
  height: 28px;
}

.circles button:first-child {
  min-width: 0;
  padding: 0;
  overflow: hidden;
  border: 0;
  background: none;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}

.circles .chosen button:first-child {
  color: var(--amber);
  font-weight: 600;
}

.circles :deep(.figure) {
  min-height: 28px;
  padding: 0;
}

.head {
  fill: var(--soft);
  font: 16px var(--sans);
}

.cloth {
  fill: var(--mat);
  stroke: var(--teal);
  vector-effect: non-scaling-stroke;
}

.edge {
  stroke: var(--ink);
  stroke-width: 1.4;
  vector-effect: non-scaling-stroke;
}

.fold {
  stroke: var(--teal);
  stroke-width: 1.4;
  stroke-dasharray: 6 4;
  vector-effect: non-scaling-stroke;
}

.piece.lit .edge {
  stroke: var(--amber);
  stroke-width: 3.5;
}

.name,
.size {
  fill: var(--ink);
  font: 600 17px var(--serif);
  paint-order: stroke;
  stroke: var(--panel);
  stroke-width: 4px;
  stroke-linejoin: round;
  pointer-events: none;
}

.size {
  font: 15px var(--sans);
}
</style>
