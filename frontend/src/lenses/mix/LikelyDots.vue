<script setup lang="ts">
/** What twenty such cakes would take out of this bowl, a dot each, beside what is mixed and what is there already. */
import { computed } from "vue";
import type { Bowl } from "@/api/types";
import { useSettings } from "@/kitchen/settings";

const props = defineProps<{ bowl: Bowl }>();
const settings = useSettings();
const WIDE = 330;
const EDGE = 14;
const DOT = 20;

const mixed = computed(() => props.bowl.mix.value);
const ends = computed(() => {
  const all = [...props.bowl.spread_g, mixed.value, props.bowl.have?.value ?? mixed.value];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  return { low, span: Math.max(high - low, 1) };
});
const across = (grams: number): number =>
  EDGE + ((grams - ends.value.low) / ends.value.span) * (WIDE - 2 * EDGE);

/** The dots, each on top of those it would cover. */
const dots = computed(() => {
  const heaps = new Map<number, number>();
  return props.bowl.spread_g.map((grams) => {
    const heap = Math.round(across(grams) / DOT);
    const under = heaps.get(heap) ?? 0;
    heaps.set(heap, under + 1);
    return { x: Math.min(WIDE - DOT / 2, heap * DOT), under, short: grams > mixed.value };
  });
});
const floor = computed(() => 30 + DOT * Math.max(3, ...dots.value.map((dot) => dot.under + 1)));
const short = computed(() => dots.value.filter((dot) => dot.short).length);
const marks = computed(() => {
  const found = [{ words: `mixed ${settings.words(props.bowl.mix)}`, grams: mixed.value, main: true }];
  const { have } = props.bowl;
  if (have) found.push({ words: `there ${settings.words(have)}`, grams: have.value, main: false });
  return found.map((mark) => {
    const x = across(mark.grams);
    return { ...mark, x, side: x > WIDE / 2 ? "end" : "start", y: mark.main ? 16 : floor.value + 20 };
  });
});
const said = computed(() => {
  const most = props.bowl.spread_g.length;
  const words = short.value === 0 ? "none takes" : short.value === 1 ? "one takes" : `${short.value} take`;
  return `Of ${most} such cakes, ${words} more than is mixed.`;
});
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${WIDE} ${floor + (marks.length > 1 ? 26 : 6)}`"
      role="img"
      :aria-label="`What ${bowl.spread_g.length} such cakes take out of the bowl. ${said}`"
    >
      <path class="floor" :d="`M0 ${floor}H${WIDE}`" />
      <circle
        v-for="(dot, index) in dots"
        :key="index"
        :class="{ short: dot.short }"
        :cx="dot.x"
        :cy="floor - DOT / 2 - 1 - dot.under * DOT"
        :r="DOT / 2 - 1.5"
        :fill="dot.short ? undefined : bowl.hex"
      />
      <g v-for="mark in marks" :key="mark.words" :class="{ main: mark.main }">
        <path :d="`M${mark.x} ${mark.main ? 22 : 26}V${floor + (mark.main ? 0 : 6)}`" />
        <text :x="mark.x" :y="mark.y" :text-anchor="mark.side">{{ mark.words }}</text>
      </g>
    </svg>
    <figcaption>Each dot is what one of {{ bowl.spread_g.length }} such cakes takes. {{ said }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 10px 0;
}

svg {
  display: block;
  width: 100%;
}

.floor {
  stroke: var(--ink);
  stroke-width: 1.5;
}

circle {
  stroke: var(--ink);
  stroke-width: 1.2;
}

.short {
  fill: var(--trouble);
}

g path {
  stroke: var(--teal);
  stroke-width: 2;
  stroke-dasharray: 4 3;
}

g.main path {
  stroke: var(--amber-line);
  stroke-width: 2.5;
  stroke-dasharray: none;
}

text {
  fill: var(--ink);
  font: 600 15px var(--serif);
}

figcaption {
  color: var(--soft);
}
</style>
