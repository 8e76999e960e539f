<script setup lang="ts">
/** What lies hidden in a tier: a board between two stacks, a room for sweets, syrup in the layers. */
import { computed } from "vue";
import MediumField from "@/shared/MediumField.vue";
import FigureRow from "./FigureRow.vue";
import KindFields from "./KindFields.vue";
import PickField from "./PickField.vue";
import { SYRUPS, useTier } from "./tier";

const { order, tier, planned, change } = useTier();
const layers = computed(() => tier.value?.layers);
const plan = computed(() => planned.value?.layers);
const ROOM = [
  { value: "no", words: "none" },
  { value: "yes", words: "a cylinder" },
] as const;
const SYRUP = [
  { value: "no", words: "none" },
  { value: "yes", words: "brushed on" },
] as const;
const trouble = computed(
  () =>
    order.complaintAt(`#/design/tiers/${order.tier}/layers/cavity`) ||
    order.complaintAt(`#/design/tiers/${order.tier}/layers/board_after`),
);

function setRoom(value: "no" | "yes"): void {
  change((tier) => {
    const across = Math.round(tier.tin_diameter_mm / 3);
    tier.layers.cavity = value === "yes" ? { diameter_mm: across } : null;
  });
}

function setSyrup(value: "no" | "yes"): void {
  change((tier) => (tier.layers.syrup = value === "yes" ? { medium: "syrup" } : null));
}
</script>

<template>
  <template v-if="layers && plan">
    <h3>Hidden inside</h3>
    <KindFields :fields="['boardAfter']" />
    <FigureRow label="Hidden board, across" :figure="plan.board?.diameter" />
    <PickField
      label="Room for sweets"
      :value="layers.cavity ? 'yes' : 'no'"
      :choices="ROOM"
      @change="setRoom"
    />
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <template v-if="layers.cavity">
      <KindFields :fields="['cavity']" />
      <FigureRow label="Room, high" :figure="plan.cavity?.height" />
      <FigureRow label="Holds, of sweets" :figure="plan.cavity?.volume" />
      <FigureRow label="Wall round it" :figure="plan.cavity?.wall" />
    </template>
    <PickField label="Syrup" :value="layers.syrup ? 'yes' : 'no'" :choices="SYRUP" @change="setSyrup" />
    <template v-if="layers.syrup">
      <MediumField
        label="Syrup"
        :medium="layers.syrup.medium"
        :colour="layers.syrup.colour"
        :kinds="SYRUPS"
        plain
        @medium="(key) => change((tier) => tier.layers.syrup && (tier.layers.syrup.medium = key))"
      />
      <KindFields :fields="['soak']" />
      <FigureRow label="Syrup" :figure="plan.syrup?.weight" />
    </template>
  </template>
</template>

<style scoped>
.wrong {
  color: var(--trouble);
}
</style>
