<script setup lang="ts">
/** What lies hidden in a tier: a board between two stacks, a room for sweets, syrup in the layers. */
import { computed } from "vue";
import { usePantry } from "@/kitchen/pantry";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import { mediaFor, mediaOf, useTier } from "@/lenses/parts/tier";
import { boardWords } from "@/order/boards";
import { useJoint } from "@/order/joints";
import MediumField from "@/order/MediumField.vue";
import { useDesk } from "@/ui/desk";
import FoldedPart from "@/ui/FoldedPart.vue";
import PickField from "@/ui/PickField.vue";

const pantry = usePantry();
const { order, tier, planned, change } = useTier();
const desk = useDesk();
const layers = computed(() => tier.value?.layers);
const plan = computed(() => planned.value?.layers);
/** What the hidden board stands on. */
const { inside: under } = useJoint();
const ROOM = [
  { value: "no", words: "none" },
  { value: "yes", words: "a cylinder" },
] as const;
const SYRUP = [
  { value: "no", words: "none" },
  { value: "yes", words: "brushed on" },
] as const;
/** Everything a kitchen buys by weight can fill a room; what it is filled with stays on the list without a pantry too. */
const goods = computed(() => {
  const known = (pantry.larder?.ingredients ?? []).map((one) => ({ value: one.key, words: one.name }));
  const own = layers.value?.cavity?.filled_with;
  const listed =
    own && !known.some((one) => one.value === own) ? [{ value: own, words: own.replaceAll("_", " ") }] : [];
  return [{ value: "", words: "nothing bought" }, ...listed, ...known];
});
const hides = computed(
  () => Boolean(layers.value?.cavity || layers.value?.syrup) || (layers.value?.board_after ?? null) !== null,
);
const trouble = computed(
  () =>
    desk.complaintAt(`#/design/tiers/${order.tier}/layers/cavity`) ||
    desk.complaintAt(`#/design/tiers/${order.tier}/layers/board_after`),
);

function setRoom(value: "no" | "yes"): void {
  change((tier) => {
    const across = Math.round(tier.tin_diameter_mm / 3);
    tier.layers.cavity = value === "yes" ? { diameter_mm: across, filled_with: "sweets" } : null;
  });
}

function setSyrup(value: "no" | "yes"): void {
  change((tier) => (tier.layers.syrup = value === "yes" ? { medium: "syrup" } : null));
}
</script>

<template>
  <template v-if="layers && plan">
    <FoldedPart :key="order.tier" name="Hidden inside, syrup" says="nothing" :open="hides">
      <KindFields part="layers" :only="['board_after']" />
      <template v-if="plan.board">
        <FigureRow
          :label="`Hidden board, ${boardWords(plan.board.shape)}, across`"
          :figure="plan.board.diameter"
        />
        <FigureRow label="Hidden board, long" :figure="plan.board.length" />
        <FigureRow label="Supports below it" :figure="under?.count" />
        <FigureRow label="Each support, long" :figure="under?.length" />
        <MediumField
          label="Against sliding, on it"
          :medium="layers.board_medium"
          :colour="null"
          :kinds="mediaFor('board_medium')"
          plain
          @medium="(key) => change((tier) => (tier.layers.board_medium = key))"
        />
      </template>
      <PickField
        label="Hidden cavity"
        :value="layers.cavity ? 'yes' : 'no'"
        :choices="ROOM"
        @change="setRoom"
      />
      <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
      <template v-if="layers.cavity">
        <KindFields part="layers/cavity" />
        <PickField
          label="Filled with"
          :value="layers.cavity.filled_with ?? ''"
          :choices="goods"
          @change="
            (key) => change((tier) => tier.layers.cavity && (tier.layers.cavity.filled_with = key || null))
          "
        />
        <FigureRow label="Cavity, high" :figure="plan.cavity?.height" />
        <FigureRow label="Holds" :figure="plan.cavity?.volume" />
        <FigureRow label="Of what fills it" :figure="plan.cavity?.fill_weight" />
        <FigureRow label="Wall round it, at its thinnest" :figure="plan.cavity?.wall" />
      </template>
      <PickField label="Syrup" :value="layers.syrup ? 'yes' : 'no'" :choices="SYRUP" @change="setSyrup" />
      <template v-if="layers.syrup">
        <MediumField
          label="Syrup"
          :medium="layers.syrup.medium"
          :colour="layers.syrup.colour"
          :kinds="mediaOf('layers/syrup')"
          plain
          @medium="(key) => change((tier) => tier.layers.syrup && (tier.layers.syrup.medium = key))"
        />
        <KindFields part="layers/syrup" />
        <FigureRow label="Syrup" :figure="plan.syrup?.weight" />
      </template>
    </FoldedPart>
  </template>
</template>

<style scoped></style>
