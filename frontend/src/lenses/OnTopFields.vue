<script setup lang="ts">
/** A flat piece of any outline, cut from a sheet and laid on the top. */
import { computed } from "vue";
import { reshaped, SHAPES, type ShapeKind } from "@/order/shapes";
import MediumField from "@/shared/MediumField.vue";
import FigureRow from "./FigureRow.vue";
import KindFields from "./KindFields.vue";
import OutlineFile from "./OutlineFile.vue";
import SilhouetteRow from "./SilhouetteRow.vue";
import { SHEETS, useTier } from "./tier";

const { order, tier, planned, change } = useTier();
const asked = computed(() => tier.value?.on_top);
const plan = computed(() => planned.value?.on_top);

function add(): void {
  change((tier) => {
    const across_mm = Math.round(tier.tin_diameter_mm * 0.5);
    tier.on_top = { medium: "fondant", shape: { kind: "heart" }, across_mm };
  });
}

function setShape(kind: ShapeKind): void {
  change((tier) => {
    const top = tier.on_top;
    if (!top) return;
    top.shape = reshaped({ ...tier, shape: top.shape, tin_diameter_mm: top.across_mm }, kind);
    if ("length_mm" in top.shape) top.shape.length_mm = Math.max(50, top.shape.length_mm);
  });
}

function read(points_mm: [number, number][], width: number): void {
  change((tier) => {
    if (!tier.on_top) return;
    tier.on_top.shape = { kind: "free", points_mm };
    tier.on_top.across_mm = width;
  });
}
</script>

<template>
  <h3>Laid on the top</h3>
  <div v-if="!asked" class="same">
    <button class="act" @click="add">Add a flat piece</button>
  </div>
  <template v-else>
    <SilhouetteRow
      label="Shape of the piece on top"
      :value="asked.shape.kind"
      :choices="SHAPES"
      @change="setShape"
    />
    <OutlineFile v-if="asked.shape.kind === 'free'" @read="read" />
    <MediumField
      label="Piece on top"
      :medium="asked.medium"
      :colour="asked.colour"
      :kinds="SHEETS"
      @medium="(key) => change((tier) => tier.on_top && (tier.on_top.medium = key))"
      @colour="(name) => change((tier) => tier.on_top && (tier.on_top.colour = name))"
    />
    <KindFields :fields="['onTop', 'onTopThick']" />
    <FigureRow label="Rolled, weighs" :figure="plan?.rolled_weight" />
    <FigureRow label="Stays on the cake" :figure="plan?.stays_weight" />
    <p v-if="order.complaintAt(`#/design/tiers/${order.tier}/on_top/shape`)" class="wrong" role="alert">
      {{ order.complaintAt(`#/design/tiers/${order.tier}/on_top/shape`) }}
    </p>
    <div class="same">
      <button class="act" @click="change((tier) => (tier.on_top = null))">Remove the piece on top</button>
    </div>
  </template>
</template>

<style scoped>
.wrong {
  color: var(--trouble);
}
</style>
