<script setup lang="ts">
/** Piped borders along the foot and the top edge: how wide their bead, of what, and what they take. */
import { computed } from "vue";
import type { Tier } from "@/api/types";
import MeasureField from "@/shared/MeasureField.vue";
import MediumField from "@/shared/MediumField.vue";
import FigureRow from "./FigureRow.vue";
import PickField from "./PickField.vue";
import { COATS, useTier } from "./tier";

type Border = Tier["borders"][number];
const { order, tier, planned, change } = useTier();
const borders = computed(() => tier.value?.borders ?? []);
const AT = [
  { value: "foot", words: "along the foot" },
  { value: "top", words: "along the top edge" },
] as const;
const BEADS = [
  { value: "half", words: "half a round" },
  { value: "round", words: "a full round" },
] as const;

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
  <h3>Borders</h3>
  <div v-for="(border, index) in borders" :key="index" class="border">
    <PickField
      label="Border"
      :value="border.at"
      :choices="AT"
      @change="(value) => alter(index, (border) => (border.at = value))"
    />
    <PickField
      label="Bead"
      :value="border.bead"
      :choices="BEADS"
      @change="(value) => alter(index, (border) => (border.bead = value))"
    />
    <div class="rows">
      <MeasureField
        label="Bead, wide"
        :value="border.bead_mm"
        :usual="order.document?.practice.bead_mm"
        limit="bead_mm"
        :pointer="`#/design/tiers/${order.tier}/borders/${index}/bead_mm`"
        @change="(value) => alter(index, (border) => (border.bead_mm = value))"
      />
    </div>
    <MediumField
      label="Border"
      :medium="border.medium"
      :colour="border.colour"
      :kinds="COATS"
      @medium="(key) => alter(index, (border) => (border.medium = key))"
      @colour="(name) => alter(index, (border) => (border.colour = name))"
    />
    <FigureRow label="Round the edge" :figure="planned?.borders[`border_${index + 1}`]?.length" />
    <FigureRow label="Piped, weighs" :figure="planned?.borders[`border_${index + 1}`]?.weight" />
    <div class="same">
      <button class="act" @click="change((tier) => tier.borders.splice(index, 1))">Remove this border</button>
    </div>
  </div>
  <div v-if="borders.length < 4" class="same">
    <button class="act" @click="add">{{ borders.length ? "Another border" : "Add a border" }}</button>
  </div>
</template>

<style scoped>
.border {
  padding-bottom: 10px;
}
</style>
