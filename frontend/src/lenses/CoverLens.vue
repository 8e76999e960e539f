<script setup lang="ts">
import { computed } from "vue";
import type { Tier } from "@/api/types";
import TierField from "@/order/TierField.vue";
import ChoiceRow from "@/shared/ChoiceRow.vue";
import { useHandbook } from "@/shared/handbook";
import MediumField from "@/shared/MediumField.vue";
import FigureRow from "./FigureRow.vue";
import LensHead from "./LensHead.vue";
import LensNotes from "./LensNotes.vue";
import { SHEETS, useTier } from "./tier";

const handbook = useHandbook();
const { tier, planned, several, change, sameForAll } = useTier();
const cover = computed(() => planned.value?.cover);
const beneath = computed(() => {
  if (!tier.value) return "";
  const { final, crumb } = tier.value;
  return handbook.mediumName(final.kind === "none" ? crumb.medium : final.medium).toLowerCase();
});
const detail = computed(() =>
  tier.value?.cover.kind === "drape"
    ? `${handbook.mediumName(tier.value.cover.medium)} draped over ${beneath.value}`
    : `Nothing over the ${beneath.value}`,
);
const KINDS = [
  { value: "none", words: "None" },
  { value: "drape", words: "Draped sheet" },
] as const;

function setKind(kind: Tier["cover"]["kind"]): void {
  change((tier) => {
    tier.cover = kind === "none" ? { kind } : { kind, medium: "fondant" };
  });
}

function setDrape(alter: (cover: Extract<Tier["cover"], { kind: "drape" }>) => void): void {
  change((tier) => {
    if (tier.cover.kind === "drape") alter(tier.cover);
  });
}

const copyCover = (from: Tier, to: Tier): void => {
  to.cover = from.cover;
};
</script>

<template>
  <section v-if="tier && planned">
    <LensHead words="Cover" :detail="detail" />
    <template v-if="cover">
      <FigureRow label="Roll out a circle" :figure="cover.roll_diameter" main />
      <FigureRow label="Roll out, one way" :figure="cover.roll_width" main />
      <FigureRow label="Roll out, the other" :figure="cover.roll_length" main />
    </template>
    <LensNotes lens="cover" />
    <ChoiceRow label="How the tier is covered" :value="tier.cover.kind" :choices="KINDS" @change="setKind" />
    <template v-if="cover && tier.cover.kind === 'drape'">
      <MediumField
        label="Sheet"
        :medium="tier.cover.medium"
        :colour="tier.cover.colour"
        :kinds="SHEETS"
        @medium="(key) => setDrape((cover) => (cover.medium = key))"
        @colour="(name) => setDrape((cover) => (cover.colour = name))"
      />
      <div class="rows">
        <TierField field="sheet" :figure="cover.over.side.id" />
        <TierField field="overlap" :figure="cover.overlap.id" />
      </div>
      <FigureRow label="Over the coat, across" :figure="cover.width_over_coat" />
      <FigureRow label="Over the coat, high" :figure="cover.height_over_coat" />
      <FigureRow label="Rolled, weighs" :figure="cover.rolled_weight" />
      <FigureRow label="Stays on the tier" :figure="cover.over.weight" />
      <FigureRow label="Trimmed off" :figure="cover.trimmed_weight" />
      <FigureRow label="Hem gathers" :figure="cover.gather" />
    </template>
    <FigureRow label="Finished tier, across" :figure="planned.stack.diameter" />
    <FigureRow label="Finished tier, long" :figure="planned.stack.length" />
    <FigureRow label="Finished tier, high" :figure="planned.stack.height" />
    <div v-if="several" class="same">
      <button class="act" @click="sameForAll(copyCover)">This cover on every tier</button>
    </div>
    <LensNotes lens="cover" cautions />
  </section>
</template>
