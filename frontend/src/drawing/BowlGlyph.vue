<script setup lang="ts">
/** A bowl cut through: what of its mix stays on the cake at the bottom, then what is lost, the reserve, what comes back. */
import { computed } from "vue";
import { bowlLevels, HIGH, inside, RIM, WIDE } from "./bowlShape";

const props = defineProps<{
  id: string;
  hex: string;
  /** Each part of the mix from the bottom up, as a share of it. */
  parts: readonly { name: string; share: number; lit?: boolean }[];
  width: number;
}>();
const levels = computed(() => bowlLevels(props.parts));
const within = inside();
</script>

<template>
  <svg
    class="glyph"
    :width="width"
    :viewBox="`${-WIDE / 2 - 3} -4 ${WIDE + 6} ${HIGH + 8}`"
    aria-hidden="true"
  >
    <clipPath :id="`bowl-${id}`"><path :d="within" /></clipPath>
    <g :clip-path="`url(#bowl-${id})`">
      <rect
        v-for="level in levels"
        :key="level.name"
        :class="[level.name, { lit: level.lit }]"
        :x="-WIDE / 2"
        :y="HIGH - level.to"
        :width="WIDE"
        :height="level.to - level.from"
        :fill="level.name === 'stays' || level.name === 'reserve' ? hex : undefined"
      />
      <path
        v-for="level in levels.slice(0, -1)"
        :key="`l${level.name}`"
        class="line"
        :d="`M${-WIDE / 2} ${HIGH - level.to}h${WIDE}`"
      />
      <g v-for="level in levels.filter((one) => one.name === 'reserve')" :key="level.name">
        <path
          class="held"
          :d="
            Array.from(
              { length: 16 },
              (_, at) =>
                `M${-WIDE / 2 + at * 9 - 12} ${HIGH - level.from}l${level.to - level.from} ${level.from - level.to}`,
            ).join('')
          "
        />
      </g>
    </g>
    <path class="wall" :d="`${within}M${-WIDE / 2 - 2} ${-RIM}H${WIDE / 2 + 2}`" />
  </svg>
</template>

<style scoped>
.glyph {
  display: block;
  flex: none;
}

.lost {
  fill: var(--lost);
}

.back {
  fill: var(--panel);
}

.lit {
  stroke: var(--amber);
  stroke-width: 6;
}

.line {
  stroke: var(--ink);
  stroke-width: 1;
}

.held {
  stroke: var(--ink);
  stroke-width: 1.2;
  opacity: 0.5;
}

.wall {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}
</style>
