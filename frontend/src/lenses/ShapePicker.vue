<script setup lang="ts">
/** The shape of the tier in hand: choosing one is choosing a silhouette. */
import { computed, useId } from "vue";
import FromAbove from "@/drawing/FromAbove.vue";
import TierField from "@/order/TierField.vue";
import { reshaped, SHAPES, type ShapeKind } from "@/order/shapes";
import { useTier } from "./tier";

const { order, tier, several, tierWords, change, sameForAll } = useTier();
const name = useId();
const shape = computed(() => tier.value?.shape);
const COUNTS = [6, 8, 10, 12] as const;
const count = computed(() => {
  if (shape.value?.kind === "polygon") return { words: "Sides", value: shape.value.sides };
  return shape.value?.kind === "petal" ? { words: "Petals", value: shape.value.petals } : null;
});

function choose(kind: ShapeKind): void {
  change((tier) => (tier.shape = reshaped(tier, kind)));
}

function setCount(value: (typeof COUNTS)[number]): void {
  change((tier) => {
    if (tier.shape.kind === "polygon") tier.shape.sides = value;
    if (tier.shape.kind === "petal") tier.shape.petals = value;
  });
}

const trouble = computed(() => order.complaintAt(`#/design/tiers/${order.tier}/shape`));
</script>

<template>
  <section v-if="tier && shape">
    <h3>Shape, {{ tierWords }}</h3>
    <fieldset>
      <legend class="unseen">Shape of the {{ tierWords }}</legend>
      <label
        v-for="one in SHAPES"
        :key="one.kind"
        :class="{ chosen: one.kind === shape.kind }"
        :title="one.words"
      >
        <input
          type="radio"
          :name="name"
          :value="one.kind"
          :checked="one.kind === shape.kind"
          :aria-label="one.words"
          @change="choose(one.kind)"
        />
        <svg width="30" height="30" viewBox="0 0 24 24" aria-hidden="true"><path :d="one.icon" /></svg>
      </label>
    </fieldset>
    <FromAbove />
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <div class="rows">
      <TierField field="tin" :figure="`tiers.${order.tier + 1}.layers.cake_diameter`" />
      <TierField v-if="'length_mm' in shape" field="length" />
      <TierField v-if="'corner_mm' in shape" field="corner" />
      <label v-if="count" class="count">
        {{ count.words }}
        <select
          :value="count.value"
          @change="setCount(Number(($event.target as HTMLSelectElement).value) as 6)"
        >
          <option v-for="one in COUNTS" :key="one" :value="one">{{ one }}</option>
        </select>
      </label>
    </div>
    <div v-if="several" class="same">
      <button class="act" @click="sameForAll((from, to) => (to.shape = from.shape))">
        This shape for every tier
      </button>
    </div>
  </section>
</template>

<style scoped>
fieldset {
  display: flex;
  margin: 0;
  padding: 0;
  border: 1px solid var(--rule);
}

fieldset label {
  flex: 1;
  display: grid;
  place-content: center;
  height: 48px;
  cursor: pointer;
}

fieldset label + label {
  border-left: 1px solid var(--rule);
}

fieldset label:hover {
  background: #fbf1de;
}

fieldset .chosen {
  background: var(--tint);
  box-shadow: inset 0 -3px 0 var(--amber-line);
}

fieldset label:has(:focus-visible) {
  outline: 3px solid var(--amber-line);
  outline-offset: 1px;
}

input {
  position: absolute;
  opacity: 0;
}

path {
  fill: #ecd3a4;
  stroke: var(--ink);
  stroke-width: 1.4;
}

.count {
  display: flex;
  align-items: center;
  justify-content: space-between;
}

select {
  height: 40px;
  border: 0;
  border-bottom: 2px solid var(--amber-line);
  background: none;
  color: inherit;
  font: 600 20px var(--serif);
}

.wrong {
  color: var(--trouble);
}
</style>
