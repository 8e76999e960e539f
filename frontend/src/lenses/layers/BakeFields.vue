<script setup lang="ts">
/** What the layers are cut from: not set, baked and measured, or still to be baked in tins of a depth. */
import { tenth } from "@/base/round";
import { computed } from "vue";
import type { Tier } from "@/api/types";
import { usePantry } from "@/kitchen/pantry";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import { useTier } from "@/lenses/parts/tier";
import { newOfKind, choicesOf } from "@/order/kinds";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import MeasureField from "@/ui/MeasureField.vue";
import PickField from "@/ui/PickField.vue";

type Bake = NonNullable<Tier["layers"]["bake"]>;
const { order, tier, planned, change } = useTier();
const bake = computed(() => tier.value?.layers.bake ?? null);
const plan = computed(() => planned.value?.layers.bake);
const pantry = usePantry();
/** Every cake there is a recipe for, and the one in hand also where its recipe is gone. */
const cakes = computed(() => {
  const known = pantry.cakes.map((one) => ({ value: one.key, words: one.name }));
  const own = tier.value?.layers.cake ?? "";
  return known.some((one) => one.value === own)
    ? known
    : [...known, { value: own, words: own.replaceAll("_", " ") }];
});
const kind = computed(() => bake.value?.kind ?? "none");
const kinds = computed(() => [
  { value: "none" as const, words: "Not set" },
  ...choicesOf<Bake["kind"]>("layers/bake"),
]);

function setKind(kind: "none" | Bake["kind"]): void {
  change((tier) => {
    const { count, height_mm } = tier.layers;
    if (kind === "none") {
      tier.layers.height_mm = height_mm ?? tenth(plan.value?.slice_height.value ?? 30);
      tier.layers.bake = null;
      return;
    }
    const edges_mm = Array.from({ length: count }, () => height_mm ?? 30);
    const given = kind === "measured" ? { edges_mm } : {};
    tier.layers.bake = newOfKind(tier, "layers/bake", kind, given);
  });
}

function alter(how: (edges: number[]) => void): void {
  change((tier) => {
    if (tier.layers.bake?.kind === "measured") how(tier.layers.bake.edges_mm);
  });
}

function takeCommonCut(): void {
  change((tier) => (tier.layers.height_mm = null));
}
</script>

<template>
  <h3>Baked layers</h3>
  <PickField
    label="Cake"
    :value="tier?.layers.cake ?? ''"
    :choices="cakes"
    @change="(key) => change((tier) => (tier.layers.cake = key))"
  />
  <ChoiceRow label="What the layers are cut from" :value="kind" :choices="kinds" @change="setKind" />
  <template v-if="bake">
    <template v-if="bake.kind === 'measured'">
      <div class="rows">
        <MeasureField
          v-for="(edge, index) in bake.edges_mm"
          :key="index"
          :label="`Layer ${index + 1}, lowest edge`"
          :value="edge"
          limit="layer_height_mm"
          :pointer="`#/design/tiers/${order.tier}/layers/bake/edges_mm/${index}`"
          @change="(value) => value !== null && alter((edges) => (edges[index] = value))"
        />
      </div>
      <div class="same two">
        <button
          class="act"
          :disabled="bake.edges_mm.length >= 12"
          @click="alter((edges) => void edges.push(edges.at(-1) ?? 30))"
        >
          Another layer
        </button>
        <button class="act" :disabled="bake.edges_mm.length <= 1" @click="alter((edges) => void edges.pop())">
          One fewer
        </button>
      </div>
    </template>
    <KindFields part="layers/bake" />
    <FigureRow label="Common cut" :figure="plan?.common_cut" />
    <FigureRow label="Each slice, high" :figure="plan?.slice_height" />
    <FigureRow label="Slices in all" :figure="plan?.slices" />
    <div v-if="tier?.layers.height_mm !== null" class="same">
      <button class="act" @click="takeCommonCut">Cut every layer to that</button>
    </div>
  </template>
</template>
