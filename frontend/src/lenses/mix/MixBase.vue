<script setup lang="ts">
/** One base for all the colours of a medium: what it weighs, how it is split, and what is blended of what. */
import type { Base } from "@/api/types";
import { stepWords } from "@/drawing/vessels";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import { useOrder } from "@/order/order";

defineProps<{ base: Base }>();
const order = useOrder();

function sheetWords(step: string, tier: number): string {
  const name = order.plan?.tiers[tier - 1]?.name ?? `Tier ${tier}`;
  return `${name}, ${stepWords(step.replace(/^tier_[a-z0-9]+_/, ""))}`;
}

const UNCOLOURED = "~plain";

function partName(base: Base, key: string): string {
  return key === UNCOLOURED ? "uncoloured" : (base.tints[key]?.colour ?? base.blends[key]?.colour ?? key);
}
</script>

<template>
  <h3>One base, split into colours</h3>
  <FigureRow :label="`${base.name}, in all`" :figure="base.whole" />
  <FigureRow label="Batches" :figure="base.batches" />
  <FigureRow v-if="(base.batches?.value ?? 0) > 1" label="Each, in equal batches" :figure="base.batch" />
  <p v-if="(base.batches?.value ?? 0) > 1" class="soft">
    Stir the batches together before anything is coloured.
  </p>
  <ul>
    <li v-for="(tint, key) in base.tints" :key="key">
      <span class="swatch" :style="{ background: tint.hex }" />
      <FigureRow
        :label="tint.colour === null ? 'Stays uncoloured' : `Colour ${tint.colour}`"
        :figure="tint.whole"
      />
    </li>
  </ul>
  <template v-for="blend in base.blends" :key="blend.colour">
    <div class="blend">
      <span class="swatch" :style="{ background: blend.hex }" />
      <FigureRow :label="`${blend.colour}, blended`" :figure="blend.whole" />
    </div>
    <ul class="parts">
      <li v-for="(part, key) in blend.parts" :key="key">
        <FigureRow :label="`of ${partName(base, String(key))}`" :figure="part" />
      </li>
    </ul>
    <template v-if="blend.marbled">
      <p class="soft">
        Knead it only until it is streaked. Its trimmings cannot be rolled again as marble, so mix each sheet
        on its own:
      </p>
      <template v-for="(sheet, step) in blend.sheets" :key="step">
        <FigureRow :label="sheetWords(String(step), sheet.tier)" :figure="sheet.whole" />
        <ul class="parts">
          <li v-for="(part, key) in sheet.parts" :key="key">
            <FigureRow :label="`log of ${partName(base, String(key))}`" :figure="part" />
          </li>
        </ul>
      </template>
    </template>
  </template>
</template>

<style scoped>
ul:not(.parts) li,
.blend {
  display: grid;
  grid-template-columns: 26px 1fr;
  gap: 10px;
  align-items: center;
}

.parts {
  padding-left: 36px;
}

.swatch {
  width: 26px;
  height: 26px;
  border: 1px solid var(--ink);
}

.soft {
  padding: 6px 0;
}
</style>
