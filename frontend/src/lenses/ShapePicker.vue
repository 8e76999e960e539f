<script setup lang="ts">
/** The shape of the tier in hand: choosing one is choosing a silhouette. */
import { computed } from "vue";
import FromAbove from "@/drawing/FromAbove.vue";
import TierField from "@/order/TierField.vue";
import { reshaped, SHAPES, type ShapeKind } from "@/order/shapes";
import OutlineFile from "./OutlineFile.vue";
import SilhouetteRow from "./SilhouetteRow.vue";
import { useTier } from "./tier";

const { order, tier, several, tierWords, change, sameForAll } = useTier();
const shape = computed(() => tier.value?.shape);
const COUNTS = [6, 8, 10, 12] as const;
const count = computed(() => {
  if (shape.value?.kind === "polygon") return { words: "Sides", value: shape.value.sides };
  return shape.value?.kind === "petal" ? { words: "Petals", value: shape.value.petals } : null;
});

function choose(kind: ShapeKind): void {
  change((tier) => (tier.shape = reshaped(tier, kind)));
}

function read(points_mm: [number, number][], width: number): void {
  change((tier) => {
    tier.shape = { kind: "free", points_mm };
    tier.tin_diameter_mm = width;
  });
}

function setCount(value: (typeof COUNTS)[number]): void {
  change((tier) => {
    if (tier.shape.kind === "polygon") tier.shape.sides = value;
    if (tier.shape.kind === "petal") tier.shape.petals = value;
  });
}

const trouble = computed(() => order.complaintAt(`#/design/tiers/${order.tier}/shape`));
</script>

<template>
  <section v-if="tier && shape">
    <h3>Shape, {{ tierWords }}</h3>
    <SilhouetteRow
      :label="`Shape of the ${tierWords}`"
      :value="shape.kind"
      :choices="SHAPES"
      @change="choose"
    />
    <FromAbove />
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <div class="rows">
      <TierField field="tin" :figure="`tiers.${order.tier + 1}.layers.cake_diameter`" />
      <TierField v-if="'length_mm' in shape" field="length" />
      <TierField v-if="'corner_mm' in shape" field="corner" />
      <label v-if="count" class="count">
        {{ count.words }}
        <select
          :value="count.value"
          @change="setCount(Number(($event.target as HTMLSelectElement).value) as 6)"
        >
          <option v-for="one in COUNTS" :key="one" :value="one">{{ one }}</option>
        </select>
      </label>
    </div>
    <OutlineFile v-if="shape.kind === 'free'" @read="read" />
    <div v-if="several" class="same">
      <button class="act" @click="sameForAll((from, to) => (to.shape = from.shape))">
        This shape for every tier
      </button>
    </div>
  </section>
</template>

<style scoped>
.count {
  display: flex;
  align-items: center;
  justify-content: space-between;
}

select {
  height: 40px;
  border: 0;
  border-bottom: 2px solid var(--amber-line);
  background: none;
  color: inherit;
  font: 600 20px var(--serif);
}

.wrong {
  color: var(--trouble);
}
</style>
