<script setup lang="ts">
import { computed } from "vue";
import type { Tier } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import KitNeeds from "@/lenses/parts/KitNeeds.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import SameForAll from "@/lenses/parts/SameForAll.vue";
import { mediaFor, mediaOf, useTier } from "@/lenses/parts/tier";
import { useDescribed } from "@/order/described";
import { newOfKind, choicesOf } from "@/order/kinds";
import MediumField from "@/order/MediumField.vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import BakeFields from "./BakeFields.vue";
import HiddenFields from "./HiddenFields.vue";
import FractionText from "@/ui/FractionText.vue";

const settings = useSettings();
const { order, tier, planned, change } = useTier();
const torted = computed(() => (tier.value?.layers.bake?.torte ?? 1) > 1);

const filling = computed(() => tier.value?.filling);
const layers = computed(() => planned.value?.layers);
const target = computed(() => layers.value?.target);
const offTarget = computed(() => Math.abs(target.value?.missing.value ?? 0) > 1);
const { layersWords } = useDescribed();
const detail = computed(() =>
  tier.value && layers.value ? layersWords(tier.value, layers.value.count.value) : "",
);

function setKind(kind: Tier["filling"]["kind"]): void {
  change((tier) => (tier.filling = newOfKind(tier, "filling", kind)));
}

/** A size worked out by the plan, as a mark that a ruler or knife can be set to. */
function settable(mm: number): number {
  return Math.round(mm * 100) / 100;
}

const SAME = [
  { words: "These layers on every tier", copy: (from: Tier, to: Tier) => (to.layers = from.layers) },
  { words: "This filling in every tier", copy: (from: Tier, to: Tier) => (to.filling = from.filling) },
];
const severalMixes = computed(() => Object.keys(order.plan?.batter.mixes ?? {}).length > 1);
</script>

<template>
  <section v-if="tier && layers && filling">
    <LensHead words="Layers" :detail="detail" each />
    <FigureRow label="Filled and stacked, high" :figure="layers.height" main />
    <KindFields part="layers" :only="['count', 'height_mm', 'target_height_mm']" />
    <div v-if="target && offTarget" class="reach">
      <p>
        <strong
          ><FractionText :text="settings.words({ value: Math.abs(target.missing.value), unit: 'mm' })" />
          {{ target.missing.value > 0 ? "short" : "too tall" }}.</strong
        >
        <template v-if="target.filling_thickness || target.cut_height || target.other_count">
          One of these reaches it:</template
        >
        <template v-else> See below why nothing reaches it.</template>
      </p>
      <button
        v-if="target.filling_thickness"
        class="act"
        @click="change((tier) => (tier.filling.thickness_mm = settable(target!.filling_thickness!.value)))"
      >
        <FractionText :text="`Filling ${settings.words(target.filling_thickness)} thick`" />
      </button>
      <button
        v-if="target.cut_height"
        class="act"
        @click="change((tier) => (tier.layers.height_mm = settable(target!.cut_height!.value)))"
      >
        <FractionText :text="`Cut each at ${settings.words(target.cut_height)}`" />
      </button>
      <button
        v-if="target.other_count"
        class="act"
        @click="
          change((tier) => {
            tier.layers.count = target!.other_count!.count.value;
            tier.layers.height_mm = settable(target!.other_count!.cut_height.value);
          })
        "
      >
        {{ target.other_count.count.value }} layers cut at
        <FractionText :text="settings.words(target.other_count.cut_height)" />
      </button>
    </div>
    <LensNotes subject="layers" />
    <BakeFields />
    <h3>Filling</h3>
    <ChoiceRow
      label="How it is filled"
      :value="filling.kind"
      :choices="choicesOf<Tier['filling']['kind']>('filling')"
      @change="setKind"
    />
    <MediumField
      label="Filling"
      :medium="filling.medium"
      :colour="filling.colour"
      :kinds="mediaOf('filling')"
      @medium="(key) => change((tier) => (tier.filling.medium = key))"
      @colour="(name) => change((tier) => (tier.filling.colour = name))"
    />
    <KindFields part="filling" :only="['thickness_mm']" />
    <template v-if="filling.kind === 'soft'">
      <h3>Dam and seal</h3>
      <MediumField
        label="Dam and seal"
        :medium="filling.dam_medium"
        :colour="filling.dam_colour"
        :kinds="mediaFor('dam_medium')"
        @medium="(key) => change((tier) => tier.filling.kind === 'soft' && (tier.filling.dam_medium = key))"
        @colour="(name) => change((tier) => tier.filling.kind === 'soft' && (tier.filling.dam_colour = name))"
      />
      <KindFields part="filling" :only="['dam_width_mm', 'seal_mm']" />
    </template>
    <HiddenFields />
    <h3>In this order</h3>
    <ol class="order">
      <li v-for="place in [...layers.order].reverse()" :key="place.number" :value="place.number">
        {{ place.way
        }}<template v-if="torted">, slice {{ place.slice }} of baked layer {{ place.baked }}</template>
      </li>
    </ol>
    <h3>Amounts on this tier</h3>
    <FigureRow label="Filling" :figure="layers.filling.weight" />
    <FigureRow label="Dam" :figure="layers.filling.dam_weight" />
    <FigureRow label="Seal" :figure="layers.filling.seal_weight" />
    <FigureRow label="Spread the filling" :figure="layers.count.value > 1 ? layers.filling.spread : null" />
    <FigureRow label="Cake, trimmed across" :figure="layers.cake_diameter" />
    <FigureRow label="Cake, trimmed long" :figure="layers.cake_length" />
    <FigureRow label="Cake alone" :figure="layers.cake_weight" />
    <FigureRow label="Carved off" :figure="layers.offcut" />
    <template v-if="order.plan && order.plan.batter.whole.value > 0">
      <h3>Batter for the whole cake</h3>
      <FigureRow label="Tins of this tier" :figure="layers.tins" />
      <FigureRow label="Layers from each" :figure="layers.slices_each" />
      <FigureRow label="Tin, at least as deep as" :figure="layers.tin_depth" />
      <FigureRow label="In all" :figure="order.plan.batter.whole" />
      <template v-for="(mix, key) in order.plan.batter.mixes" :key="key">
        <FigureRow v-if="severalMixes" :label="`Of that, ${mix.name.toLowerCase()}`" :figure="mix.batter" />
        <FigureRow :label="`${mix.name}, recipes to make`" :figure="mix.batches" />
        <FigureRow label="Batter left over" :figure="mix.rest" />
        <FigureRow label="Small spare cake from that" :figure="mix.spare" />
      </template>
    </template>
    <KitNeeds :tools="['tin', 'board']" />
    <SameForAll :ways="SAME" />
    <LensNotes subject="layers" cautions />
  </section>
</template>

<style scoped>
.order {
  display: grid;
  gap: 4px;
  margin: 0;
  padding-left: 28px;
}
</style>
