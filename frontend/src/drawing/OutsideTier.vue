<script setup lang="ts">
/** The finished outside of one tier, the left half: its colour and stripes, light from the upper left, engraving. */
import { computed } from "vue";
import type { Silhouette } from "@/api/types";
import { path, type Sheet, through, xAt, yAt } from "./layout";
import { rimOf, tapered } from "./plate";
import { bandsSeen, bandsUp, hexOf, isDark, leftOf, wallAt, wallLines } from "./tone";

/** `scored` are lines on a carved tier, by where they lie from its axis and how high in the cake. */
const props = defineProps<{
  tier: Silhouette;
  half: number;
  sheet: Sheet;
  scored: readonly (readonly (readonly [number, number])[])[];
}>();
/** How deep the light catches a rim, mm, and how wide an engraved line becomes, in pixels. */
const RIM = 5;
const WIDE = 1.7;

type Points = readonly (readonly [number, number])[];
const pixels = (points: Points): [number, number][] =>
  points.map(([across, up]) => [xAt(props.sheet, -across), yAt(props.sheet, up)]);
const area = (points: Points): string => (points.length ? path(points, props.sheet, true) : "");

/** What of the scored lines lies on the left half. */
const scores = computed(() =>
  props.scored
    .filter((one) => one.some(([across]) => across < 0))
    .map((one) =>
      through(
        one,
        (across) => xAt(props.sheet, Math.min(0, across)),
        (up) => yAt(props.sheet, up),
      ),
    )
    .join(""),
);

const shapes = computed(() => {
  const { tier, half } = props;
  const left = leftOf(tier);
  const bands = tier.bands as [string, number][];
  return {
    hex: hexOf(tier.paint),
    whole: area(left),
    bands: tier.round
      ? bandsUp(bands, left).map(({ hex, edge }) => ({ hex, d: area(edge) }))
      : bandsSeen(bands).map(([hex, from, to]) => ({
          hex,
          d: area([...wallAt(left, from), ...wallAt(left, to).reverse()]),
        })),
    lines: wallLines(tier, half)
      .map((line) => tapered(pixels(wallAt(left, line / half)).reverse(), WIDE))
      .join(""),
    piped: (tier.piped ?? []).flatMap(({ hex, left: parts }) =>
      parts.map((ring) => ({ hex, d: area(ring as Points) })),
    ),
    rim: area(rimOf(left, RIM)),
  };
});
</script>

<template>
  <path :d="shapes.whole" :fill="shapes.hex" class="edge" />
  <path v-for="(band, at) in shapes.bands" :key="at" :d="band.d" :fill="band.hex" />
  <path :d="shapes.whole" :fill="`url(#lit-${tier.curved ? 'round' : 'flat'})`" />
  <path :d="shapes.whole" fill="url(#at-foot)" />
  <path v-if="shapes.lines" class="engraved" :class="{ dark: isDark(shapes.hex) }" :d="shapes.lines" />
  <path v-if="scores" class="scored" :class="{ dark: isDark(shapes.hex) }" :d="scores" />
  <path v-if="shapes.rim" class="rim" :d="shapes.rim" />
  <path :d="shapes.whole" class="edge" fill="none" />
  <template v-for="(one, at) in shapes.piped" :key="`p${at}`">
    <path :d="one.d" :fill="one.hex" class="edge thin" />
    <path :d="one.d" fill="url(#strokes)" />
    <path :d="one.d" :fill="`url(#lit-${tier.curved ? 'round' : 'flat'})`" />
  </template>
</template>

<style scoped>
.edge {
  stroke: var(--ink);
  stroke-width: 2;
}

.thin {
  stroke-width: 1.2;
}

.engraved {
  fill: var(--ink);
  opacity: 0.26;
}

.engraved.dark {
  fill: var(--panel);
}

.scored {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  opacity: 0.55;
}

.scored.dark {
  stroke: var(--panel);
}

.rim {
  fill: #fff;
  opacity: 0.36;
}
</style>
