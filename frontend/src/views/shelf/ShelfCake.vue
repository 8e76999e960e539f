<script setup lang="ts">
/** One order as a silhouette standing on the shelf, to the scale of all. */
import { computed } from "vue";
import type { Outside } from "@/api/types";
import { bandsSeen, bandsUp, hexOf, isDark, leftOf, wallAt, wallLines } from "@/drawing/tone";

const props = defineProps<{ outside: Outside; scale: number }>();
const half = computed(() => (props.outside.base_diameter.value / 2) * props.scale);
const height = computed(() => props.outside.height.value * props.scale);
const board = computed(() => props.outside.base_thickness.value * props.scale);
const tiers = computed(() =>
  props.outside.tiers.map((tier) => {
    const across = Math.max(...tier.outline.map(([x]) => x));
    const at = (x: number, z: number): string =>
      `${(half.value + x * props.scale).toFixed(1)} ${(height.value - z * props.scale).toFixed(1)}`;
    const right = wallAt(tier.outline, 1);
    const left = wallAt(leftOf(tier), 1)
      .reverse()
      .map(([x, z]): [number, number] => [-x, z]);
    const lines = wallLines(tier, across).flatMap((mm) => {
      const line = wallAt(tier.outline, mm / across);
      return [1, -1].map((side) => `M${line.map(([x, z]) => at(side * x, z)).join("L")}`);
    });
    const round = bandsUp((tier.bands ?? []) as [string, number][], tier.outline).map(({ hex, edge }) => {
      const both = [
        ...edge.slice(1, -1),
        ...edge
          .slice(1, -1)
          .reverse()
          .map(([x, z]): [number, number] => [-x, z]),
      ];
      return { hex, d: `M${both.map(([x, z]) => at(x, z)).join("L")}Z` };
    });
    const bands = tier.round
      ? round
      : [0.25, 0.5].flatMap((begin) =>
          bandsSeen((tier.bands ?? []) as [string, number][], begin).map(([hex, from, to]) => {
            const [near, far] = [wallAt(tier.outline, from), wallAt(tier.outline, to).reverse()];
            return { hex, d: `M${[...near, ...far].map(([x, z]) => at(-x, z)).join("L")}Z` };
          }),
        );
    const piped = (tier.piped ?? []).map((one) => {
      const both = [
        ...one.left.map((ring) => ring.map(([x = 0, z = 0]): [number, number] => [-x, z])),
        ...one.right.map((ring) => ring.map(([x = 0, z = 0]): [number, number] => [x, z])),
      ];
      return {
        hex: one.hex,
        d: both.map((ring) => `M${ring.map(([x, z]) => at(x, z)).join("L")}Z`).join(""),
        // Where the two halves meet there is no edge.
        edge: both
          .flatMap((ring) =>
            ring.map((corner, index) => [corner, ring[(index + 1) % ring.length] ?? corner] as const),
          )
          .filter(([[a], [b]]) => a !== 0 || b !== 0)
          .map(([from, to]) => `M${at(...from)}L${at(...to)}`)
          .join(""),
      };
    });
    return {
      bands,
      piped,
      hex: hexOf(tier.paint),
      d: `M${[...right, ...left].map(([x, z]) => at(x, z)).join("L")}Z`,
      lines,
    };
  }),
);
</script>

<template>
  <svg
    :width="2 * half + 2"
    :height="height + 2"
    :viewBox="`-1 -1 ${2 * half + 2} ${height + 2}`"
    aria-hidden="true"
  >
    <rect
      x="0"
      :y="height - board"
      :width="2 * half"
      :height="board"
      fill="var(--foil)"
      stroke="var(--ink)"
    />
    <g v-for="(tier, index) in tiers" :key="index">
      <path :d="tier.d" :fill="tier.hex" stroke="var(--ink)" stroke-width="1.4" stroke-linejoin="round" />
      <path v-for="(band, at) in tier.bands" :key="`b${at}`" :d="band.d" :fill="band.hex" />
      <path
        v-for="line in tier.lines"
        :key="line"
        :d="line"
        fill="none"
        :stroke="isDark(tier.hex) ? 'var(--panel)' : 'var(--ink)'"
        stroke-width="0.8"
        opacity="0.2"
      />
      <template v-for="(one, at) in tier.piped" :key="`p${at}`">
        <path :d="one.d" :fill="one.hex" />
        <path :d="one.edge" fill="none" stroke="var(--ink)" stroke-width="1.4" stroke-linecap="round" />
      </template>
    </g>
  </svg>
</template>

<style scoped>
/* An edge that falls between two pixels is not cut off. */
svg {
  overflow: visible;
}
</style>
