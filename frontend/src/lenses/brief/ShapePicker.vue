<script setup lang="ts">
/** The shape of the tier in hand: choosing one is choosing a silhouette. */
import { computed } from "vue";
import type { Tier } from "@/api/types";
import FromAbove from "@/drawing/FromAbove.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import OutlineFile from "@/lenses/parts/OutlineFile.vue";
import SilhouetteRow from "@/lenses/parts/SilhouetteRow.vue";
import SameForAll from "@/lenses/parts/SameForAll.vue";
import { useTier } from "@/lenses/parts/tier";
import { newOfKind, choicesOf, ownOutline } from "@/order/kinds";
import TierField from "@/order/TierField.vue";
import { useDesk } from "@/ui/desk";

const { order, tier, tierWords, change } = useTier();
const desk = useDesk();
const shape = computed(() => tier.value?.shape);

const SAME = [
  { words: "This shape for every tier", copy: (from: Tier, to: Tier) => (to.shape = from.shape) },
];

function choose(kind: Tier["shape"]["kind"]): void {
  change((tier) => (tier.shape = newOfKind(tier, "shape", kind)));
}

function read(points_mm: [number, number][], width: number): void {
  change((tier) => {
    tier.shape = { kind: "free", points_mm, smooth_corners: [] };
    tier.tin_diameter_mm = width;
  });
}

const trouble = computed(() => desk.complaintAt(`#/design/tiers/${order.tier}/shape`));
</script>

<template>
  <section v-if="tier && shape">
    <h3>Shape, {{ tierWords }}</h3>
    <p v-if="ownOutline(tier)" class="soft">
      From above it is as its body is: see Carve. To choose a shape, choose another way for it to rise.
    </p>
    <SilhouetteRow
      v-else
      :label="`Shape of the ${tierWords}`"
      :value="shape.kind"
      :choices="choicesOf<Tier['shape']['kind']>('shape')"
      @change="choose"
    />
    <FromAbove />
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <div class="rows">
      <TierField field="tin_diameter_mm" />
    </div>
    <KindFields part="shape" />
    <OutlineFile v-if="shape.kind === 'free'" @read="read" />
    <SameForAll v-if="!ownOutline(tier)" :ways="SAME" />
  </section>
</template>
