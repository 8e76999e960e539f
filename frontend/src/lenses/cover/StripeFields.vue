<script setup lang="ts">
/** The colours of a striped panel, each with its share of the wall and what it weighs. */
import { computed } from "vue";
import type { Stripe } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import { useTier } from "@/lenses/parts/tier";
import PickField from "@/ui/PickField.vue";

const { order, tier, planned, change } = useTier();
const stripes = computed(() => (tier.value?.cover.kind === "panel" ? tier.value.cover.stripes : []));
const colours = computed(() => order.document?.design.colours ?? []);
const most = useHandbook().limit("stripes").high;
const weights = computed(() => planned.value?.cover?.stripes ?? {});

const panel = computed(() => (tier.value?.cover.kind === "panel" ? tier.value.cover : null));
const run = computed(() => panel.value?.run ?? "upright");
const edges = computed(() => panel.value?.stripe_edges ?? "straight");
const RUNS = [
  { value: "upright", words: "up the wall" },
  { value: "round", words: "round the tier" },
] as const;
const EDGES = [
  { value: "straight", words: "straight" },
  { value: "irregular", words: "irregular" },
] as const;

function setRun(value: "upright" | "round"): void {
  change((tier) => {
    if (tier.cover.kind === "panel") tier.cover.run = value;
  });
}

function setEdges(value: "straight" | "irregular"): void {
  change((tier) => {
    if (tier.cover.kind === "panel") tier.cover.stripe_edges = value;
  });
}

function alter(how: (stripes: Stripe[]) => void): void {
  change((tier) => {
    if (tier.cover.kind === "panel") how(tier.cover.stripes);
  });
}

/** The next stripe takes the first colour not used yet. */
function add(): void {
  alter((list) => {
    const unused = colours.value.find((one) => !list.some((stripe) => stripe.colour === one.name));
    list.push({ colour: unused?.name ?? null, share: 1 });
  });
}

function setShare(index: number, event: Event): void {
  const input = event.target as HTMLInputElement;
  const value = Number.parseFloat(input.value.replace(",", "."));
  alter((list) => {
    const stripe = list[index];
    if (stripe && value >= 0.01 && value <= 100) stripe.share = value;
  });
  input.value = String(stripes.value[index]?.share ?? 1);
}
</script>

<template>
  <h3>Stripes</h3>
  <p v-if="!stripes.length" class="soft">
    One colour. Add stripes to join several, each by its share of the girth, or of the height from the foot.
  </p>
  <div v-for="(stripe, index) in stripes" :key="index" class="stripe">
    <select
      :aria-label="`Stripe ${index + 1}: colour`"
      :value="stripe.colour ?? ''"
      @change="
        alter((list) => {
          const one = list[index];
          if (one) one.colour = ($event.target as HTMLSelectElement).value || null;
        })
      "
    >
      <option value="">uncoloured</option>
      <option v-for="one in colours" :key="one.name" :value="one.name">{{ one.name }}</option>
    </select>
    <label>
      share
      <input type="text" inputmode="decimal" :value="stripe.share" @change="setShare(index, $event)" />
    </label>
    <button
      class="act"
      :aria-label="`Remove stripe ${index + 1}`"
      @click="alter((list) => list.splice(index, 1))"
    >
      ×
    </button>
    <FigureRow
      :label="`Stripe ${index + 1}, rolled`"
      :figure="weights[`stripe_${index + 1}`]"
      class="weight"
    />
  </div>
  <template v-if="stripes.length">
    <PickField label="Stripes run" :value="run" :choices="RUNS" @change="setRun" />
    <PickField
      v-if="run === 'round'"
      label="Edges between them"
      :value="edges"
      :choices="EDGES"
      @change="setEdges"
    />
  </template>
  <div class="same">
    <button class="act" :disabled="stripes.length >= most" @click="add">Add a stripe</button>
  </div>
</template>

<style scoped>
.stripe {
  display: grid;
  grid-template-columns: 1fr auto 40px;
  gap: 10px;
  align-items: center;
  padding-top: 6px;
}

.weight {
  grid-column: 1 / -1;
}

.act {
  padding: 0;
}

label {
  display: flex;
  gap: 8px;
  align-items: center;
}

select,
input {
  font: 600 17px var(--serif);
}

input {
  width: 5ch;
  text-align: right;
}
</style>
