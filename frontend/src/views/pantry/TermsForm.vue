<script setup lang="ts">
/** What work costs here, and the money it is reckoned in. */
import { computed } from "vue";
import type { Pantry } from "@/api/types";
import { usePantry } from "@/kitchen/pantry";
import MeasureField from "@/ui/MeasureField.vue";
import PlainField from "./PlainField.vue";

type Terms = Pantry["terms"];
const pantry = usePantry();
const terms = computed(() => pantry.pantry?.terms);
const FIELDS: readonly {
  name: Exclude<keyof Terms, "currency">;
  words: string;
  limit: string;
  percent?: boolean;
}[] = [
  { name: "hour_price", words: "An hour of work costs", limit: "price" },
  { name: "minutes_per_tier", words: "A tier usually takes", limit: "minutes" },
  { name: "overhead", words: "Overhead, of materials and work", limit: "fraction", percent: true },
  { name: "profit", words: "Profit, of all it costs", limit: "fraction", percent: true },
  { name: "round_to", words: "Prices come in steps of", limit: "round_to" },
];

async function setCurrency(text: string): Promise<string> {
  const code = text.trim().toUpperCase();
  if (!/^[A-Z]{3}$/.test(code)) return "Type the three letters of a currency, such as EUR, GBP or USD.";
  return (await pantry.change((kept) => (kept.terms.currency = code))) ? "" : pantry.trouble;
}
</script>

<template>
  <section v-if="terms" class="terms">
    <div class="line">
      <span>Prices are in</span>
      <PlainField label="Currency" :value="terms.currency" :take="setCurrency" />
    </div>
    <MeasureField
      v-for="field in FIELDS"
      :key="field.name"
      class="line"
      :label="field.words"
      :limit="field.limit"
      :percent="field.percent"
      :value="terms[field.name]"
      @change="(value) => value !== null && pantry.change((kept) => (kept.terms[field.name] = value))"
    />
    <p>
      These make the price that is suggested for an order. What an order itself takes in minutes is set in its
      Shop lens.
    </p>
  </section>
</template>

<style scoped>
.terms {
  max-width: 560px;
}

.line {
  min-height: 48px;
  border-bottom: 1px solid var(--rule);
}

div.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
}

.line :deep(input) {
  text-align: right;
}

p {
  padding-top: 14px;
  color: var(--soft);
}
</style>
