<script setup lang="ts">
import { computed } from "vue";
import type { Tier } from "@/api/types";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import KitNeeds from "@/lenses/parts/KitNeeds.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import PieceRows from "@/lenses/parts/PieceRows.vue";
import { SIZE_WORDS } from "@/lenses/parts/pieces";
import TaskList from "@/lenses/parts/TaskList.vue";
import TemplateLinks from "@/lenses/parts/TemplateLinks.vue";
import SameForAll from "@/lenses/parts/SameForAll.vue";
import { useTier } from "@/lenses/parts/tier";
import { useCovering } from "@/order/covering";
import { useDescribed } from "@/order/described";
import { newOfKind, choicesOf, kindAt } from "@/order/kinds";
import MediumField from "@/order/MediumField.vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import BorderFields from "./BorderFields.vue";
import OnTopFields from "./OnTopFields.vue";
import PatchColours from "./PatchColours.vue";
import PatchSeams from "./PatchSeams.vue";
import RegionFields from "./RegionFields.vue";
import StripeFields from "./StripeFields.vue";
import FractionText from "@/ui/FractionText.vue";

type Cover = Tier["cover"];
type Rolled = Extract<Cover, { medium: string }>;

const { order, tier, planned, change } = useTier();
const cover = computed(() => planned.value?.cover);
const asked = computed(() => tier.value?.cover);
const rolled = computed(() => (asked.value && "medium" in asked.value ? asked.value : null));
const kind = computed(() => (tier.value ? kindAt(tier.value, "cover") : undefined));
const { coverWords } = useDescribed();
const detail = computed(() => (tier.value ? coverWords(tier.value) : ""));
/** What carries the pieces until they stand: counted, and cut to the same templates. */
const carriers = computed(() => {
  const carried = Object.values(cover.value?.pieces ?? {}).filter((one) => one.stuff !== "sheet");
  const count = carried.reduce((sum, one) => sum + one.count.value, 0);
  if (!count) return "";
  const what = carried[0]?.stuff === "paper" ? "of paper" : "of acetate";
  return `${count} ${count === 1 ? "sheet" : "sheets"} ${what}, cut to the same ${count === 1 ? "template" : "templates"}, to carry ${count === 1 ? "it" : "them"}.`;
});
/** What a strip already cut has to do to go round, as a share in per cent; nothing where it is long enough. */
const stretchWords = computed(() => {
  const stretch = cover.value?.stretch?.value ?? 0;
  if (stretch <= 0) return "The strip you have cut is long enough: it laps, and needs no stretching.";
  return `The strip you have cut must stretch by ${(100 * stretch).toFixed(1)} per cent to go round.`;
});
/** The first measure of the first piece stands at the head, where the cover is not one sheet. */
const first = computed(() => {
  if (!cover.value || cover.value.roll_diameter || cover.value.roll_width) return null;
  const piece = Object.values(cover.value.pieces)[0];
  const sizes = Object.entries(piece?.sizes ?? {});
  const [name, figure] = sizes.find(([name]) => name === "box_long") ?? sizes[0] ?? [];
  if (!piece || !name || !figure) return null;
  const count = piece.count.value > 1 ? `, ${piece.count.value} of them` : "";
  return { words: `${piece.name}${count}, ${SIZE_WORDS[name] ?? name}`, figure };
});
/** Over how much of the tier a sheet tears, in per cent. */
const torn = computed(() => Math.ceil(100 * (cover.value?.torn?.value ?? 0)));
const strain = computed(() => Math.ceil(100 * (cover.value?.strain?.value ?? 0)));
const seams = computed(() => cover.value?.printed?.seams.map((turn) => `${Math.round(turn)}°`).join(", "));
const { bowls, tasks: inOrder } = useCovering();

function setKind(kind: Cover["kind"]): void {
  change((tier) => (tier.cover = newOfKind(tier, "cover", kind)));
}

function setRolled(alter: (cover: Rolled) => void): void {
  change((tier) => {
    if ("medium" in tier.cover) alter(tier.cover);
  });
}

const SAME = [{ words: "This cover on every tier", copy: (from: Tier, to: Tier) => (to.cover = from.cover) }];
</script>

<template>
  <section v-if="tier && planned && asked && kind">
    <LensHead words="Cover" :detail="detail" each />
    <template v-if="cover">
      <FigureRow label="Roll out a circle" :figure="cover.roll_diameter" main />
      <FigureRow label="Roll out, one way" :figure="cover.roll_width" main />
      <FigureRow label="Roll out, the other" :figure="cover.roll_length" main />
      <FigureRow v-if="cover.printed" label="Sheets" :figure="cover.printed.sheets" main />
      <FigureRow v-else-if="first" :label="first.words" :figure="first.figure" main />
    </template>
    <LensNotes subject="cover" />
    <ChoiceRow
      label="How the tier is covered"
      :value="asked.kind"
      :choices="choicesOf<Cover['kind']>('cover')"
      :columns="4"
      @change="setKind"
    />
    <template v-if="cover">
      <MediumField
        v-if="rolled"
        label="Sheet"
        :medium="rolled.medium"
        :colour="rolled.colour"
        :kinds="kind.media"
        :plain="asked.kind === 'panel' && asked.stripes.length > 0"
        @medium="(key) => setRolled((cover) => (cover.medium = key))"
        @colour="(name) => setRolled((cover) => (cover.colour = name))"
      />
      <KindFields part="cover" />
      <StripeFields v-if="asked.kind === 'panel'" />
      <template v-if="asked.kind === 'patches'">
        <PatchSeams />
        <PatchColours />
      </template>
      <PieceRows :pieces="cover.pieces" :place="`${order.path}.cover.pieces`" />
      <p v-if="carriers" class="soft">{{ carriers }}</p>
      <template v-if="cover.printed">
        <FigureRow label="Strips round the tier" :figure="cover.printed.strips" />
        <FigureRow label="Each strip, high" :figure="cover.printed.strip_height" />
        <FigureRow label="Too short by" :figure="cover.printed.too_tall" />
        <p class="soft">Seams at {{ seams }}, counted from the back.</p>
      </template>
      <h3>Sizes and weights</h3>
      <FigureRow label="Over the coat, across" :figure="cover.width_over_coat" />
      <FigureRow
        :label="planned.foot ? 'Over the coat, front to back' : 'Over the coat, high'"
        :figure="cover.height_over_coat"
      />
      <FigureRow label="Rolled, weighs" :figure="cover.rolled_weight" />
      <FigureRow label="Stays on the tier" :figure="cover.stays" />
      <FigureRow label="Trimmed off" :figure="cover.trimmed_weight" />
      <FigureRow label="Stands above the tier" :figure="cover.above" />
      <FigureRow label="Hem gathers" :figure="cover.gather" />
      <template v-if="cover.strain">
        <FigureRow label="Seams between them, in all" :figure="cover.seams" />
        <p class="soft">
          The patch that gives most is stretched or gathered by {{ strain }} per cent, its corners apart. The
          same letter stands on both patches where they meet.
        </p>
      </template>
      <p v-if="torn" class="soft">
        Over {{ torn }} per cent of the tier the sheet would be drawn out by more than fondant gives. Carve
        paints it in the round.
      </p>
      <p v-if="cover.stretch" class="soft"><FractionText :text="stretchWords" /></p>
      <TaskList v-if="inOrder.length" name="Cover in this order" :tasks="inOrder" open />
      <FigureRow
        v-for="bowl in bowls"
        :key="bowl.name"
        :label="bowls.length > 1 ? `Have ready, ${bowl.name.toLowerCase()}` : 'Have ready in all'"
        :figure="bowl.mix"
      />
    </template>
    <FigureRow label="Finished tier, across" :figure="planned.stack.diameter" />
    <FigureRow label="Finished tier, long" :figure="planned.stack.length" />
    <FigureRow label="Finished tier, high" :figure="planned.stack.height" />
    <BorderFields />
    <RegionFields />
    <OnTopFields />
    <KitNeeds :tools="['mat', 'pin', 'smoother', 'printed sheet']" />
    <TemplateLinks />
    <SameForAll :ways="SAME" />
    <LensNotes subject="cover" cautions />
  </section>
</template>

<style scoped>
.soft {
  padding: 8px 0;
}
</style>
