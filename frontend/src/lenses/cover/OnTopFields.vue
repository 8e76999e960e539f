<script setup lang="ts">
/** Flat pieces of any outline, cut from a sheet and laid on the top. */
import { computed } from "vue";
import type { OnTop } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import OutlineFile from "@/lenses/parts/OutlineFile.vue";
import SilhouetteRow from "@/lenses/parts/SilhouetteRow.vue";
import { mediaOf, useTier } from "@/lenses/parts/tier";
import { newOfKind, choicesOf } from "@/order/kinds";
import MediumField from "@/order/MediumField.vue";
import { newId } from "@/order/partIds";
import { useDesk } from "@/ui/desk";
import FoldedPart from "@/ui/FoldedPart.vue";

const handbook = useHandbook();
const { order, tier, planned, change } = useTier();
const desk = useDesk();
const pieces = computed(() => tier.value?.on_top ?? []);
const plans = computed(() => Object.values(planned.value?.on_top ?? {}));
const most = computed(() => handbook.limit("on_tops").high);

function add(): void {
  change((tier) => {
    const across_mm = Math.round(tier.tin_diameter_mm * 0.5);
    tier.on_top.push({ id: newId(), medium: "fondant", shape: { kind: "heart" }, across_mm, count: 1 });
  });
}

function alter(index: number, how: (top: OnTop) => void): void {
  change((tier) => {
    const top = tier.on_top[index];
    if (top) how(top);
  });
}

function setShape(index: number, kind: OnTop["shape"]["kind"]): void {
  change((tier) => {
    const top = tier.on_top[index];
    if (!top) return;
    top.shape = newOfKind({ ...tier, shape: top.shape, tin_diameter_mm: top.across_mm }, "shape", kind);
    if ("length_mm" in top.shape) top.shape.length_mm = Math.max(50, top.shape.length_mm);
  });
}

function read(index: number, points_mm: [number, number][], width: number): void {
  alter(index, (top) => {
    top.shape = { kind: "free", points_mm, smooth_corners: [] };
    top.across_mm = width;
  });
}

const pointer = (index: number, field: string): string =>
  `#/design/tiers/${order.tier}/on_top/${index}/${field}`;
</script>

<template>
  <FoldedPart :key="order.tier" name="Laid on the top" says="nothing" :open="pieces.length > 0">
    <template v-for="(asked, index) in pieces" :key="index">
      <h4 v-if="pieces.length > 1">Piece {{ index + 1 }}</h4>
      <SilhouetteRow
        :label="`Shape of piece ${index + 1} on top`"
        :value="asked.shape.kind"
        :choices="choicesOf<OnTop['shape']['kind']>('shape')"
        @change="(kind) => setShape(index, kind)"
      />
      <OutlineFile v-if="asked.shape.kind === 'free'" @read="(points, width) => read(index, points, width)" />
      <MediumField
        :label="pieces.length > 1 ? `Piece ${index + 1} on top` : 'Piece on top'"
        :medium="asked.medium"
        :colour="asked.colour"
        :kinds="mediaOf('on_top')"
        @medium="(key) => alter(index, (top) => (top.medium = key))"
        @colour="(name) => alter(index, (top) => (top.colour = name))"
      />
      <KindFields :part="`on_top/${index}`" />
      <FigureRow label="Rolled, weighs" :figure="plans[index]?.rolled_weight" />
      <FigureRow label="Stays on the cake" :figure="plans[index]?.stays_weight" />
      <p v-if="desk.complaintAt(pointer(index, 'shape'))" class="wrong" role="alert">
        {{ desk.complaintAt(pointer(index, "shape")) }}
      </p>
      <div class="same">
        <button class="act" @click="change((tier) => tier.on_top.splice(index, 1))">
          Remove {{ pieces.length > 1 ? `piece ${index + 1}` : "the piece on top" }}
        </button>
      </div>
    </template>
    <div class="same">
      <button class="act" :disabled="pieces.length >= most" @click="add">
        Add {{ pieces.length ? "another" : "a" }} flat piece
      </button>
    </div>
  </FoldedPart>
</template>

<style scoped>
h4 {
  margin: 12px 0 0;
  font: 600 17px var(--serif);
}
</style>
