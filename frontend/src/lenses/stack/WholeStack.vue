<script setup lang="ts">
/** The whole cake as it is lifted, driven and held: weight, balance, dowel, coat before or after, portions. */
import { computed } from "vue";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import TravelFields from "@/lenses/parts/TravelFields.vue";
import { useOrder } from "@/order/order";
import MeasureField from "@/ui/MeasureField.vue";
import PickField from "@/ui/PickField.vue";

const order = useOrder();
const settings = useSettings();
const stack = computed(() => order.plan?.stack);
const asked = computed(() => order.document?.design.stacking);
const several = computed(() => (order.plan?.tiers.length ?? 0) > 1);
/** How large a portion is cut. */
const cut = computed(() => {
  const { portion_wide_mm: wide = 0, portion_deep_mm: deep = 0 } = order.document?.practice ?? {};
  return [wide, deep].map((value) => settings.words({ value, unit: "mm" })).join(" × ");
});
const COATED = [
  { value: "before", words: "before stacking" },
  { value: "after", words: "after stacking" },
] as const;
const DOWEL = [
  { value: null, words: "where it is driven stacked" },
  { value: true, words: "yes" },
  { value: false, words: "no" },
] as const;
</script>

<template>
  <template v-if="stack && asked">
    <h3>The whole cake</h3>
    <FigureRow label="Weighs, board and all" :figure="stack.weight" />
    <FigureRow label="People to lift it" :figure="stack.people" />
    <FigureRow label="Balance point, height" :figure="stack.middle_up" />
    <FigureRow label="Tips on its board at" :figure="stack.tips" />
    <FigureRow label="A push that tips it on its board, of its weight" :figure="stack.push" />
    <FigureRow label="A push that tips it off its board, of its weight" :figure="stack.foot_push" />
    <template v-if="several">
      <FigureRow label="Top may lean by" :figure="stack.lean" />
      <PickField
        label="Final coat"
        :value="asked.coated ?? 'before'"
        :choices="COATED"
        @change="(coated) => order.edit((draft) => (draft.design.stacking.coated = coated))"
      />
      <h3>The drive</h3>
      <TravelFields />
      <FigureRow label="A hard stop pushes with" :figure="stack.brake" />
      <FigureRow label="Weakest joint holds, of its weight" :figure="stack.weakest" />
      <FigureRow label="A sharp turn pushes with" :figure="stack.turn" />
      <h3>Centre dowel</h3>
      <PickField
        label="A dowel through all tiers"
        :value="asked.dowel ?? null"
        :choices="DOWEL"
        @change="(dowel) => order.edit((draft) => (draft.design.stacking.dowel = dowel))"
      />
      <div v-if="stack.dowel" class="rows">
        <MeasureField
          label="Thick"
          limit="dowel_mm"
          :value="asked.dowel_mm"
          :usual="stack.dowel.across.value"
          pointer="#/design/stacking/dowel_mm"
          :figure="stack.dowel.across.id"
          @change="(value) => order.edit((draft) => (draft.design.stacking.dowel_mm = value))"
        />
        <MeasureField
          label="Cut to"
          limit="rod_mm"
          :value="asked.dowel_length_mm"
          :usual="stack.dowel.length.value"
          rounding="down"
          pointer="#/design/stacking/dowel_length_mm"
          :figure="stack.dowel.length.id"
          @change="(value) => order.edit((draft) => (draft.design.stacking.dowel_length_mm = value))"
        />
      </div>
      <template v-if="stack.dowel">
        <FigureRow label="At least, to hold the top tier" :figure="stack.dowel.least" />
        <FigureRow
          v-if="stack.dowel.least_across.value > 0"
          label="At least as thick, for a hard stop"
          :figure="stack.dowel.least_across"
        />
        <FigureRow label="Hole in every board above the base" :figure="stack.dowel.hole" />
      </template>
    </template>
    <h3>Portions of {{ cut }}</h3>
    <FigureRow
      v-for="tier in [...(order.plan?.tiers ?? [])].reverse()"
      :key="tier.stack.portions.id"
      :label="tier.name"
      :figure="tier.stack.portions"
    />
    <FigureRow v-if="several" label="In all" :figure="stack.portions" />
    <p class="soft">The serving card counts larger cuts too.</p>
  </template>
</template>

<style scoped>
.soft {
  padding: 8px 0;
}
</style>
