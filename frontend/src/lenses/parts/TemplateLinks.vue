<script setup lang="ts">
/** The templates at true size, to print and cut by, and the amounts as a table. */
import { computed, ref } from "vue";
import { usePapers } from "@/order/papers";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import { useTier } from "./tier";

defineProps<{ heading?: string }>();
defineSlots<{ default?: (given: { paper: string }) => unknown }>();
const { order, several, tierWords } = useTier();
const { take } = usePapers();
const PAPERS = [
  { value: "a4", words: "A4" },
  { value: "letter", words: "Letter" },
] as const;
const paper = ref<"a4" | "letter">("a4");
const TIERS = [
  { value: "all", words: "Every tier" },
  { value: "one", words: "This tier" },
] as const;
const which = ref<"all" | "one">("all");
const tier = computed(() => (which.value === "one" ? `&tier=${order.tier + 1}` : ""));
</script>

<template>
  <h3>{{ heading ?? "Templates at true size" }}</h3>
  <ChoiceRow label="Paper" :value="paper" :choices="PAPERS" @change="(value) => (paper = value)" />
  <slot :paper="paper" />
  <ChoiceRow
    v-if="several"
    :label="`Templates of every tier, or of the ${tierWords} alone`"
    :value="which"
    :choices="TIERS"
    @change="(value) => (which = value)"
  />
  <div class="same">
    <button class="act main" @click="take(`templates.pdf?paper=${paper}${tier}`)">Print (PDF)</button>
    <div class="two">
      <button class="act" @click="take(`templates.svg?${tier.slice(1)}`)">As SVG</button>
      <button class="act" @click="take(`templates.dxf?${tier.slice(1)}`)">As DXF</button>
      <button class="act" @click="take('amounts.csv')">Amounts, CSV</button>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr 1.3fr;
  gap: 8px;
}

.two .act {
  padding: 0 4px;
}
</style>
