<script setup lang="ts">
/** The light on the outside and what cut surfaces are filled with: a few patterns that every part of the cake shares. */
import { tile, TILE } from "./crumb";
import { GRAINS, VARIANTS } from "./materials";

defineProps<{
  /** Pores are as large as the cake is drawn. */
  scale: number;
}>();

const INKS = [
  { name: "", hollow: "#A36A22", lip: "#FFF6DE", fleck: "#7A4A1E" },
  { name: "-dark", hollow: "#24110A", lip: "#B98B68", fleck: "#D9B68C" },
];
/** Light and shade: its name, where it runs to from the upper left, and its stops: where, of what colour, how strong. */
type Stop = readonly [at: number, colour: string, strength: number];
const LIGHTS: readonly (readonly [name: string, x: number, y: number, stops: readonly Stop[]])[] = [
  [
    "lit-round",
    1,
    0,
    [
      [0, "#4A2A20", 0.32],
      [0.12, "#4A2A20", 0.17],
      [0.26, "#8A6A60", 0.04],
      [0.34, "#FFFFFF", 0.1],
      [0.46, "#FFFFFF", 0.3],
      [0.62, "#FFFFFF", 0.12],
      [0.8, "#8A6A60", 0],
      [1, "#4A2A20", 0.1],
    ],
  ],
  [
    "lit-flat",
    0.6,
    1,
    [
      [0, "#FFFFFF", 0.26],
      [0.5, "#FFFFFF", 0],
      [1, "#33180F", 0.12],
    ],
  ],
  [
    "at-foot",
    0,
    1,
    [
      [0.86, "#33180F", 0],
      [1, "#33180F", 0.2],
    ],
  ],
  [
    "baked",
    0,
    1,
    [
      [0, "#7A3F10", 0.4],
      [0.09, "#7A3F10", 0.08],
      [0.2, "#7A3F10", 0],
      [0.82, "#7A3F10", 0],
      [0.92, "#7A3F10", 0.08],
      [1, "#7A3F10", 0.36],
    ],
  ],
  [
    "foil",
    0,
    1,
    [
      [0, "#FBFAF5", 1],
      [0.2, "#E9E6DB", 1],
      [0.65, "#CFCBBC", 1],
      [1, "#E4E0D2", 1],
    ],
  ],
];
const crumbs = Object.entries(GRAINS).flatMap(([name, grain], number) =>
  Array.from({ length: VARIANTS }, (_, variant) => tile(grain, 11 + 7 * number + 101 * variant)).flatMap(
    (paths, variant) => INKS.map((ink) => ({ id: `${name}-${variant}${ink.name}`, ...paths, ink })),
  ),
);
</script>

<template>
  <defs>
    <pattern
      v-for="crumb in crumbs"
      :id="crumb.id"
      :key="crumb.id"
      :width="TILE[0]"
      :height="TILE[1]"
      patternUnits="userSpaceOnUse"
      :patternTransform="`scale(${scale})`"
    >
      <path :d="crumb.lip" :fill="crumb.ink.lip" opacity="0.75" />
      <path :d="crumb.hollow" :fill="crumb.ink.hollow" opacity="0.62" />
      <path
        v-if="crumb.flecks"
        :d="crumb.flecks"
        :stroke="crumb.ink.fleck"
        stroke-width="1.3"
        opacity="0.55"
      />
    </pattern>
    <pattern id="strokes" width="34" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-4)">
      <path
        d="M1 2.5q8 -1.8 17 0M14 6.6q9 1.5 18 -.3"
        fill="none"
        stroke="#8A6A3A"
        stroke-width="0.8"
        opacity="0.3"
      />
    </pattern>
    <pattern id="seeds" width="23" height="11" patternUnits="userSpaceOnUse">
      <path d="M4 3l1.6 .9M13 8l1.5 -.8M19 3.4l1.4 1" stroke="#FBE6C9" stroke-width="1.3" opacity="0.75" />
      <path d="M8 7.4l1.4 .8M16 2.2l1.5 -.5" stroke="#4F0F1A" stroke-width="1.2" opacity="0.4" />
    </pattern>
    <pattern id="card" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(28)">
      <path d="M0 0V7" stroke="#6D532F" stroke-width="1.1" opacity="0.75" />
    </pattern>
    <pattern id="sweets" width="36" height="30" patternUnits="userSpaceOnUse" patternTransform="rotate(8)">
      <g stroke="#33241B" stroke-width="0.8">
        <circle cx="8" cy="8" r="6" fill="#E3A63A" />
        <circle cx="25" cy="7" r="6.5" fill="#C9798A" />
        <circle cx="16" cy="21" r="6.5" fill="#9DAF86" />
        <circle cx="32" cy="22" r="5.5" fill="#F3E6C4" />
        <circle cx="2" cy="24" r="5" fill="#B97B3E" />
      </g>
    </pattern>
    <linearGradient v-for="[name, x, y, stops] in LIGHTS" :id="name" :key="name" :x2="x" :y2="y">
      <stop
        v-for="[offset, colour, strength] in stops"
        :key="offset"
        :offset="offset"
        :stop-color="colour"
        :stop-opacity="strength"
      />
    </linearGradient>
    <radialGradient id="on-table">
      <stop offset="0" stop-color="#33180F" stop-opacity="0.34" />
      <stop offset="0.7" stop-color="#33180F" stop-opacity="0.12" />
      <stop offset="1" stop-color="#33180F" stop-opacity="0" />
    </radialGradient>
  </defs>
</template>
