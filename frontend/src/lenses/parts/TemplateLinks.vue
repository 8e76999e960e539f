<script setup lang="ts">
/** The templates at true size, to print and cut by, and the amounts as a table. */
import { computed, ref, watch } from "vue";
import { useSettings } from "@/kitchen/settings";
import { usePapers } from "@/order/papers";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import PickField from "@/ui/PickField.vue";
import { useTier } from "./tier";

defineProps<{ heading?: string }>();
defineSlots<{ default?: () => unknown }>();
const { order, several, tierWords } = useTier();
const settings = useSettings();
const { take, pagesOf } = usePapers();
const PAPERS = [
  { value: "a4", words: "A4" },
  { value: "letter", words: "Letter" },
] as const;
const TIERS = [
  { value: "all", words: "Every tier" },
  { value: "one", words: "This tier" },
] as const;
const PLAIN = [
  { value: false, words: "on one strip to measure by" },
  { value: true, words: "drawn whole" },
] as const;
const which = ref<"all" | "one">("all");
const whole = ref(false);
const tier = computed(() => (which.value === "one" ? order.tier + 1 : null));
const ofTier = computed(() => (tier.value === null ? "" : `&tier=${tier.value}`));
const pages = ref<number | null>(null);

/** Said once the order is saved as it stands; only the newest answer counts. */
let newest = 0;
watch(
  [() => order.revision, () => order.status, () => settings.paper, tier, whole],
  async () => {
    if (order.status !== "saved") return;
    newest += 1;
    const mine = newest;
    try {
      const found = await pagesOf({ tier: tier.value, whole: whole.value });
      if (mine === newest) pages.value = found;
    } catch {
      if (mine === newest) pages.value = null;
    }
  },
  { immediate: true },
);
const print = computed(() => {
  if (pages.value === null) return "Print (PDF)";
  return `Print ${pages.value} ${pages.value === 1 ? "page" : "pages"} (PDF)`;
});
</script>

<template>
  <h3>{{ heading ?? "Templates at true size" }}</h3>
  <ChoiceRow
    label="Paper"
    :value="settings.paper"
    :choices="PAPERS"
    @change="(value) => (settings.paper = value)"
  />
  <slot />
  <ChoiceRow
    v-if="several"
    :label="`Templates of every tier, or of the ${tierWords} alone`"
    :value="which"
    :choices="TIERS"
    @change="(value) => (which = value)"
  />
  <PickField
    label="Circles and panels"
    :value="whole"
    :choices="PLAIN"
    @change="(value) => (whole = value)"
  />
  <div class="same">
    <button class="act main" @click="take(`templates.pdf?paper=${settings.paper}&whole=${whole}${ofTier}`)">
      {{ print }}
    </button>
    <div class="two">
      <button class="act" @click="take(`templates.svg?${ofTier.slice(1)}`)">As SVG</button>
      <button class="act" @click="take(`templates.dxf?${ofTier.slice(1)}`)">As DXF</button>
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
