<script setup lang="ts">
/** A tier with no formula: how its body is given, what every layer is cut to, what comes off and what it takes. */
import { computed } from "vue";
import type { Tier } from "@/api/types";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import { useTier } from "@/lenses/parts/tier";
import { useCarving } from "@/order/carving";
import { newOfKind, kindsOf } from "@/order/kinds";
import { useSolids } from "@/order/solids";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import { useDesk } from "@/ui/desk";
import CarvedLayers from "./CarvedLayers.vue";
import ModelFields from "./ModelFields.vue";
import OpeningFields from "./OpeningFields.vue";
import SolidFields from "./SolidFields.vue";
import ViewFields from "./ViewFields.vue";

type Way = "carved" | "joined" | "modelled";
const WAYS: readonly { value: Way; words: string; says: string }[] = [
  {
    value: "carved",
    words: "Views",
    says: "To a view from the side that you draw, and the outline of its tin.",
  },
  {
    value: "joined",
    words: "Solids",
    says: "To boxes, balls, cones and rings, joined and cut out of each other.",
  },
  { value: "modelled", words: "3D file", says: "To a body out of a file: STL, OBJ, PLY or 3MF." },
];
const desk = useDesk();
const { order, tier, planned, tierWords, change } = useTier();
const { slices, build } = useCarving();
const { solids, begin } = useSolids();
const way = computed(() => WAYS.find((one) => one.value === tier.value?.build.kind)?.value);
const trouble = computed(() => desk.complaintAt(`#/design/tiers/${order.tier}/build`));
const detail = computed(() => {
  if (!way.value) return "Not carved";
  const layers = slices.value.length === 1 ? "One layer" : `${slices.value.length} layers`;
  const to = {
    carved: `a view of ${build.value?.points_mm.length ?? 0} corners`,
    joined: solids.value.length === 1 ? "one solid" : `${solids.value.length} solids`,
    modelled: "a 3D file",
  };
  return `${layers} cut to ${to[way.value]}`;
});

async function carve(to: Way): Promise<void> {
  const index = order.tier;
  const solid = to === "joined" ? await begin(index) : null;
  change((tier) => {
    const round = kindsOf("build").find((one) => one.kind === to)?.round_only;
    if (round && tier.shape.kind !== "round") tier.shape = { kind: "round" };
    tier.build = solid ?? newOfKind<Tier["build"]>(tier, "build", to);
  });
}
</script>

<template>
  <section v-if="tier && planned">
    <LensHead words="Carve" :detail="detail" />
    <template v-if="way">
      <FigureRow label="Carved, high" :figure="planned.layers.height" main />
      <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
      <LensNotes subject="body" />
      <ChoiceRow class="ways" label="How the body is given" :value="way" :choices="WAYS" @change="carve" />
      <ViewFields v-if="way === 'carved'" />
      <SolidFields v-else-if="way === 'joined'" />
      <ModelFields v-else />
      <OpeningFields />
      <CarvedLayers />
      <LensNotes subject="body" cautions />
    </template>
    <template v-else>
      <p class="soft">A carved tier is cut out of stacked layers, to a body you give in one of these ways.</p>
      <div v-for="one in WAYS" :key="one.value" class="same">
        <button class="act" :class="{ main: one.value === 'carved' }" @click="carve(one.value)">
          {{ one.value === "carved" ? `Carve the ${tierWords}` : one.words }}
        </button>
        <p class="soft">{{ one.says }}</p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.ways {
  margin-top: 14px;
}
</style>
