<script setup lang="ts">
import { computed } from "vue";
import type { Tier } from "@/api/types";
import { roundTo } from "@/base/units";
import { useHandbook } from "@/kitchen/handbook";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import KitNeeds from "@/lenses/parts/KitNeeds.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import SameForAll from "@/lenses/parts/SameForAll.vue";
import { mediaOf, useTier } from "@/lenses/parts/tier";
import { useDescribed } from "@/order/described";
import { newOfKind, choicesOf, isPlate, kindAt, kindsOf } from "@/order/kinds";
import MediumField from "@/order/MediumField.vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import MeasuredFields from "./MeasuredFields.vue";

type Final = Tier["final"];
type Spread = Extract<Final, { medium: string }>;

const handbook = useHandbook();
const settings = useSettings();
const { order, tier, planned, change } = useTier();
const final = computed(() => tier.value?.final);
const spread = computed(() => (final.value && "medium" in final.value ? final.value : null));
const kind = computed(() => (tier.value ? kindAt(tier.value, "final") : undefined));
const coats = computed(() => planned.value?.coats);
const over = computed(() => coats.value?.final ?? coats.value?.crumb);
const { coatsWords } = useDescribed();
const detail = computed(() => (tier.value ? coatsWords(tier.value) : ""));

/** The disc that would leave the coat as it is now, to the quarter inch or half centimetre discs are cut to. */
function nearestDisc(at: number): number {
  const planned = order.plan?.tiers[at]?.coats;
  const now = (planned?.final ?? planned?.crumb)?.diameter.value ?? 0;
  return Math.round(roundTo(now, settings.length === "in" ? 6.35 : 5) * 100) / 100;
}

function setKind(kind: Final["kind"]): void {
  change((tier, _, at) => {
    const given = kindsOf("final").find((one) => one.kind === kind)?.plate
      ? { disc_diameter_mm: nearestDisc(at) }
      : {};
    tier.final = newOfKind(tier, "final", kind, given);
  });
}

function setFinal(alter: (final: Spread) => void): void {
  change((tier) => {
    if ("medium" in tier.final) alter(tier.final);
  });
}

/** What lies under the final coat in another medium, and so asks for a bowl of its own. */
const other = computed(() => {
  if (!tier.value || !spread.value) return null;
  const { crumb, filling } = tier.value;
  const own = spread.value.medium;
  const parts = [
    ...(crumb.medium !== own ? ["crumb coat"] : []),
    ...(filling.kind === "plain" && filling.medium !== own && filling.medium === crumb.medium
      ? ["filling"]
      : []),
  ];
  if (!parts.length || glaze(own)) return null;
  const below = handbook.mediumName(crumb.medium).toLowerCase();
  const names = parts.join(" and ");
  return {
    words: `The ${names} of this tier ${parts.length > 1 ? "are" : "is"} still ${below}, out of a second bowl.`,
    act: `${handbook.mediumName(own)} for the ${names} too`,
  };
});
const glaze = (key: string): boolean => handbook.media.some((one) => one.key === key && one.kind === "glaze");

function takeBelow(): void {
  change((tier) => {
    if (!("medium" in tier.final)) return;
    const before = tier.crumb.medium;
    if (tier.filling.kind === "plain" && tier.filling.medium === before) {
      tier.filling.medium = tier.final.medium;
    }
    tier.crumb.medium = tier.final.medium;
  });
}

/** A disc belongs to one tier, so only what is spread and how goes across. */
const copyCoats = (from: Tier, to: Tier): void => {
  to.crumb = from.crumb;
  if (!isPlate(from.final)) to.final = from.final;
  else if (isPlate(to.final)) to.final = { ...from.final, disc_diameter_mm: to.final.disc_diameter_mm };
  else if ("medium" in to.final)
    Object.assign(to.final, { medium: from.final.medium, colour: from.final.colour });
};
</script>

<template>
  <section v-if="tier && final && kind && coats && over">
    <LensHead words="Coats" :detail="detail" each />
    <FigureRow label="Over the coat, across" :figure="over.diameter" main />
    <FigureRow
      :label="planned?.foot ? 'Over the coat, front to back' : 'Over the coat, high'"
      :figure="over.height"
    />
    <LensNotes subject="coats" />
    <h3>Final coat</h3>
    <ChoiceRow
      label="How the final coat is put on"
      :value="final.kind"
      :choices="choicesOf<Final['kind']>('final')"
      :columns="3"
      @change="setKind"
    />
    <MediumField
      v-if="spread"
      label="Final coat"
      :medium="spread.medium"
      :colour="spread.colour"
      :kinds="kind.media"
      sets
      @medium="(key) => setFinal((final) => (final.medium = key))"
      @colour="(name) => setFinal((final) => (final.colour = name))"
    />
    <p v-if="other" class="offer">
      {{ other.words }}
      <button class="act" @click="takeBelow">{{ other.act }}</button>
    </p>
    <KindFields part="final" />
    <template v-if="coats.final">
      <FigureRow v-if="isPlate(final)" label="That leaves, at the side" :figure="coats.final.side" />
      <FigureRow label="On the lower face too" :figure="coats.final.under" />
      <FigureRow label="Along a level line" :figure="coats.final.across_slope" />
      <FigureRow label="Parchment under the disc" :figure="coats.parchment" />
      <FigureRow label="Circles of parchment" :figure="coats.papers" />
      <FigureRow label="Lip weighs" :figure="coats.rim_weight" />
      <FigureRow label="Stays on this tier" :figure="coats.stays" />
    </template>
    <h3>Crumb coat</h3>
    <MediumField
      label="Crumb coat"
      :medium="tier.crumb.medium"
      :colour="tier.crumb.colour"
      :kinds="mediaOf('crumb')"
      @medium="(key) => change((tier) => (tier.crumb.medium = key))"
      @colour="(name) => change((tier) => (tier.crumb.colour = name))"
    />
    <KindFields part="crumb" />
    <FigureRow label="Crumb-coated, across" :figure="coats.crumb.diameter" />
    <FigureRow label="Goes on, to be scraped back" :figure="coats.goes_on" />
    <FigureRow label="Stays on this tier" :figure="coats.crumb_stays" />
    <MeasuredFields />
    <KitNeeds :tools="['disc', 'card', 'scraper', 'smoother']" />
    <SameForAll :ways="[{ words: 'These coats on every tier', copy: copyCoats }]" />
    <LensNotes subject="coats" cautions />
  </section>
</template>

<style scoped>
.offer {
  margin: 10px 0;
  padding: 8px 12px;
  border-left: 4px solid var(--amber-line);
  background: var(--paper);
}

.offer .act {
  width: 100%;
  height: auto;
  min-height: 44px;
  margin-top: 8px;
  padding: 8px 12px;
  white-space: normal;
}
</style>
