<script setup lang="ts">
import { computed } from "vue";
import type { Tier } from "@/api/types";
import TierField from "@/order/TierField.vue";
import ChoiceRow from "@/shared/ChoiceRow.vue";
import { useHandbook } from "@/shared/handbook";
import MediumField from "@/shared/MediumField.vue";
import { useSettings } from "@/shared/settings";
import { roundTo } from "@/shared/units";
import FigureRow from "./FigureRow.vue";
import LensHead from "./LensHead.vue";
import LensNotes from "./LensNotes.vue";
import { COATS, useTier } from "./tier";

type FinalKind = Tier["final"]["kind"];

const handbook = useHandbook();
const settings = useSettings();
const { tier, planned, several, change, sameForAll } = useTier();
const final = computed(() => tier.value?.final);
const coats = computed(() => planned.value?.coats);
const over = computed(() => coats.value?.final ?? coats.value?.crumb);
const detail = computed(() => {
  if (!final.value || !tier.value) return "";
  if (final.value.kind === "none") return `${handbook.mediumName(tier.value.crumb.medium)}, crumb coat only`;
  const name = handbook.mediumName(final.value.medium);
  return final.value.kind === "disc" ? `${name} scraped against a disc` : `${name} drawn freehand`;
});
const KINDS = [
  { value: "freehand", words: "Freehand" },
  { value: "disc", words: "Disc" },
  { value: "none", words: "None" },
] as const;

/** The disc that would leave the coat as it is now, to the quarter inch or half centimetre discs are cut to. */
function nearestDisc(): number {
  const now = over.value?.diameter.value ?? 0;
  return Math.round(roundTo(now, settings.length === "in" ? 6.35 : 5) * 100) / 100;
}

function setKind(kind: FinalKind): void {
  change((tier) => {
    const before = tier.final;
    const medium = before.kind === "none" ? tier.crumb.medium : before.medium;
    const colour = before.kind === "none" ? tier.crumb.colour : before.colour;
    const top_mm = before.kind === "none" ? null : before.top_mm;
    if (kind === "none") tier.final = { kind };
    else if (kind === "disc") tier.final = { kind, medium, colour, top_mm, disc_diameter_mm: nearestDisc() };
    else tier.final = { kind, medium, colour, top_mm };
  });
}

function setFinal(alter: (final: Exclude<Tier["final"], { kind: "none" }>) => void): void {
  change((tier) => {
    if (tier.final.kind !== "none") alter(tier.final);
  });
}

/** A disc belongs to one tier, so only what is spread and how goes across. */
const copyCoats = (from: Tier, to: Tier): void => {
  to.crumb = from.crumb;
  if (from.final.kind !== "disc") to.final = from.final;
  else if (to.final.kind === "disc")
    to.final = { ...from.final, disc_diameter_mm: to.final.disc_diameter_mm };
  else if (to.final.kind === "freehand")
    Object.assign(to.final, { medium: from.final.medium, colour: from.final.colour });
};
</script>

<template>
  <section v-if="tier && final && coats && over">
    <LensHead words="Coats" :detail="detail" />
    <FigureRow label="Over the coat, across" :figure="over.diameter" main />
    <FigureRow label="Over the coat, high" :figure="over.height" />
    <LensNotes lens="coats" />
    <h3>Final coat</h3>
    <ChoiceRow label="How the final coat is put on" :value="final.kind" :choices="KINDS" @change="setKind" />
    <template v-if="final.kind !== 'none' && coats.final">
      <MediumField
        label="Final coat"
        :medium="final.medium"
        :colour="final.colour"
        :kinds="COATS"
        @medium="(key) => setFinal((final) => (final.medium = key))"
        @colour="(name) => setFinal((final) => (final.colour = name))"
      />
      <div class="rows">
        <TierField v-if="final.kind === 'freehand'" field="side" :figure="coats.final.side.id" />
        <TierField v-else field="disc" :figure="coats.final.diameter.id" />
        <TierField field="top" :figure="coats.final.top.id" />
      </div>
      <FigureRow
        v-if="final.kind === 'disc'"
        label="The disc leaves, at the side"
        :figure="coats.final.side"
      />
      <FigureRow label="Stays on this tier" :figure="coats.final.weight" />
    </template>
    <h3>Crumb coat</h3>
    <MediumField
      label="Crumb coat"
      :medium="tier.crumb.medium"
      :colour="tier.crumb.colour"
      :kinds="COATS"
      @medium="(key) => change((tier) => (tier.crumb.medium = key))"
      @colour="(name) => change((tier) => (tier.crumb.colour = name))"
    />
    <div class="rows">
      <TierField field="crumb" :figure="coats.crumb.side.id" />
    </div>
    <FigureRow label="Crumb-coated, across" :figure="coats.crumb.diameter" />
    <FigureRow label="Stays on this tier" :figure="coats.crumb.weight" />
    <div v-if="several" class="same">
      <button class="act" @click="sameForAll(copyCoats)">These coats on every tier</button>
    </div>
    <LensNotes lens="coats" cautions />
  </section>
</template>
