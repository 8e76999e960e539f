<script setup lang="ts">
/** What every layer of a carved tier is cut to and baked in, and what all of it comes to. */
import { computed, ref } from "vue";
import type { Figure } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import TemplateLinks from "@/lenses/parts/TemplateLinks.vue";
import { useTier } from "@/lenses/parts/tier";
import { useCarving } from "@/order/carving";
import ChoiceRow from "@/ui/ChoiceRow.vue";

const settings = useSettings();
const { order, planned } = useTier();
const { carving, slices, looked } = useCarving();
const ENVELOPES = [
  { value: "bare", words: "Bare" },
  { value: "coated", words: "Coated" },
  { value: "covered", words: "Covered" },
] as const;
const FILES = ["stl", "obj", "3mf"] as const;
const of = ref<(typeof ENVELOPES)[number]["value"]>("bare");

/** What was just edited is saved first, so that the file holds what the screen shows. */
async function take(kind: (typeof FILES)[number]): Promise<void> {
  await order.save();
  window.location.assign(`/api/orders/${order.id}/body.${kind}?tier=${order.tier + 1}&of=${of.value}`);
}
const baked = computed(() => order.plan?.carved[`tier_${order.tier + 1}`]);
const times = (count: number): string => (count === 1 ? "baked once" : `baked ${count} times`);
const layersOf = (numbers: readonly number[]): string =>
  `${numbers.length === 1 ? "layer" : "layers"} ${numbers.join(", ")}`;
/** Two sides of something; of what is as long as it is wide one. */
const sides = (across: Figure, along: Figure | null): string =>
  [across, along]
    .filter((side) => side !== null)
    .map((side) => settings.words(side))
    .join(" × ");
</script>

<template>
  <h3>Cut each layer to</h3>
  <div class="slices" role="radiogroup" aria-label="The layer that is looked at">
    <label v-for="one in [...slices].reverse()" :key="one.number" :class="{ chosen: one.number === looked }">
      <input v-model="looked" type="radio" :value="one.number" class="unseen" />
      <b>{{ one.number }}</b>
      <span>{{ sides(one.wide, one.long) }}</span>
      <small>the outline moves {{ settings.words(one.moves) }} up it</small>
    </label>
  </div>
  <template v-if="baked">
    <h3>Baked in</h3>
    <div v-for="(one, key) in baked.tins" :key="key" class="baked">
      <b>{{ one.shape }} {{ sides(one.across, one.length) }}{{ one.owned ? "" : ", to get" }}</b>
      <span>{{ times(one.bakes.value) }}, for {{ layersOf(one.layers) }}</span>
      <FigureRow label="Batter" :figure="one.batter" />
    </div>
    <FigureRow v-if="Object.keys(baked.tins).length > 1" label="Batter in all" :figure="baked.batter" />
    <p v-if="baked.one_more" class="soft">
      With a {{ baked.one_more.shape }} tin of {{ settings.words(baked.one_more.across) }} as well it would
      take {{ settings.words(baked.one_more.saves) }} less.
    </p>
    <FigureRow label="Carved off" :figure="baked.offcut" />
  </template>
  <h3>What it comes to</h3>
  <FigureRow label="Cake left" :figure="planned?.layers.cake_weight" />
  <FigureRow label="Surface to coat" :figure="carving?.surface" />
  <FigureRow label="Both coats take" :figure="carving?.coats" />
  <FigureRow label="By its surface alone" :figure="carving?.by_surface" />
  <TemplateLinks heading="Layers at true size" />
  <h3>The body as a 3D file</h3>
  <ChoiceRow
    label="What of it the file holds"
    :value="of"
    :choices="ENVELOPES"
    @change="(which) => (of = which)"
  />
  <div class="same three">
    <button v-for="kind in FILES" :key="kind" class="act" @click="take(kind)">
      {{ kind.toUpperCase() }}
    </button>
  </div>
</template>

<style scoped>
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}

.slices label {
  display: grid;
  grid-template-columns: 30px 1fr;
  padding: 7px 10px;
  border-bottom: 1px solid var(--rule);
  border-left: 4px solid transparent;
  cursor: pointer;
}

.slices label:hover {
  background: var(--hover);
}

.slices .chosen {
  border-left-color: var(--amber-line);
  background: var(--tint);
}

.slices label:has(:focus-visible) {
  outline: 3px solid var(--amber-line);
  outline-offset: -3px;
}

.slices b,
.slices span {
  font: 600 18px var(--serif);
}

.baked {
  display: grid;
  padding-top: 8px;
}

.baked b {
  font: 600 18px var(--serif);
}

.baked span {
  color: var(--soft);
}

.slices small {
  grid-column: 2;
  color: var(--soft);
  font-size: 15px;
}
</style>
