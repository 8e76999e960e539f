<script setup lang="ts">
/** Piped borders along the foot and the top edge: how wide their bead, of what, and what they take. */
import { computed } from "vue";
import type { Tier } from "@/api/types";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import { mediaOf, useTier } from "@/lenses/parts/tier";
import MediumField from "@/order/MediumField.vue";
import FoldedPart from "@/ui/FoldedPart.vue";

type Border = Tier["borders"][number];
const { order, tier, planned, change } = useTier();
const borders = computed(() => tier.value?.borders ?? []);

function alter(index: number, how: (border: Border) => void): void {
  change((tier) => {
    const border = tier.borders[index];
    if (border) how(border);
  });
}

function add(): void {
  change((tier) => {
    const medium = "medium" in tier.final ? tier.final.medium : tier.crumb.medium;
    const at = tier.borders.some((border) => border.at === "foot") ? "top" : "foot";
    tier.borders.push({ at, bead: "half", medium });
  });
}
</script>

<template>
  <FoldedPart :key="order.tier" name="Borders" says="none" :open="borders.length > 0">
    <div v-for="(border, index) in borders" :key="index" class="border">
      <KindFields :part="`borders/${index}`" />
      <MediumField
        label="Border"
        :medium="border.medium"
        :colour="border.colour"
        :kinds="mediaOf('borders')"
        @medium="(key) => alter(index, (border) => (border.medium = key))"
        @colour="(name) => alter(index, (border) => (border.colour = name))"
      />
      <FigureRow label="Round the edge" :figure="planned?.borders[`border_${index + 1}`]?.length" />
      <FigureRow label="Piped, weighs" :figure="planned?.borders[`border_${index + 1}`]?.weight" />
      <div class="same">
        <button class="act" @click="change((tier) => tier.borders.splice(index, 1))">
          Remove this border
        </button>
      </div>
    </div>
    <div v-if="borders.length < 4" class="same">
      <button class="act" @click="add">{{ borders.length ? "Another border" : "Add a border" }}</button>
    </div>
  </FoldedPart>
</template>

<style scoped>
.border {
  padding-bottom: 10px;
}
</style>
