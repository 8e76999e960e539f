<script setup lang="ts">
import { computed, ref } from "vue";
import { bowlInHand, useBowl } from "@/drawing/bowl";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import { useOrder } from "@/order/order";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import MeasureField from "@/ui/MeasureField.vue";
import PickField from "@/ui/PickField.vue";
import LikelyDots from "./LikelyDots.vue";
import MixBase from "./MixBase.vue";
import WeighCup from "./WeighCup.vue";

const order = useOrder();
const settings = useSettings();
const ODDS = [5, 10, 20, 50, 100] as const;
const CHOICES = ODDS.map((odds) => ({ value: String(odds), words: `1 in ${odds}` }));
const { bowls, bowl, have, steps, setOrder, setHave, mayMove, move } = useBowl();

const choices = computed(() =>
  Object.entries(bowls.value).map(([value, bowl]) => ({ value, words: bowl.name })),
);
const dragged = ref(-1);
const over = ref(-1);

function drop(at: number): void {
  if (dragged.value >= 0) move(dragged.value, at);
  [dragged.value, over.value] = [-1, -1];
}

const base = computed(() => order.plan?.bases[bowl.value?.medium ?? ""]);
const leftovers = computed(() => order.plan?.leftovers[bowlInHand.value] ?? []);
const risk = computed(() => order.document?.practice.run_out_risk ?? 0.05);
const chosen = computed(() => String(ODDS.find((odds) => Math.abs(1 / odds - risk.value) < 1e-6) ?? ""));
const several = computed(
  () => new Set(Object.values(bowl.value?.steps ?? {}).map((use) => use.tier)).size > 1,
);
const detail = computed(() => {
  const count = Object.keys(bowls.value).length;
  return `${count === 1 ? "One bowl" : `${count} bowls`}, all to one scale`;
});

function setRisk(odds: string): void {
  order.edit((draft) => (draft.practice.run_out_risk = 1 / Number(odds)));
}

/** A share of all cakes as people say it: 1 in so many, or hardly ever. */
function odds(share: number): string {
  if (share < 0.002) return "hardly ever";
  return share > 0.66 ? `${Math.round(share * 10)} times in 10` : `about 1 time in ${Math.round(1 / share)}`;
}
</script>

<template>
  <section v-if="bowl">
    <LensHead words="Mix" whole :detail="detail" />
    <FigureRow :label="`Mix ${bowl.name}`" :figure="bowl.mix" main />
    <PickField label="Bowl" :value="bowlInHand" :choices="choices" @change="(key) => (bowlInHand = key)" />
    <template v-if="!base">
      <FigureRow label="Batches" :figure="bowl.batches" />
      <FigureRow v-if="(bowl.batches?.value ?? 0) > 1" label="Each, in equal batches" :figure="bowl.batch" />
    </template>
    <MeasureField
      class="have"
      label="Already made"
      limit="have_g"
      optional="nothing yet"
      :value="have"
      @change="setHave"
    />
    <template v-if="bowl.have">
      <FigureRow label="Still to mix" :figure="bowl.still_to_mix" />
      <p class="soft">With what is there alone it runs short {{ odds(bowl.risk_have?.value ?? 1) }}.</p>
    </template>
    <p v-if="bowl.risk_more && bowl.left_more && bowl.batch" class="soft">
      One more batch of {{ settings.words(bowl.batch) }}
      {{ bowl.have ? "on top of that" : "on top of the mix" }}: it runs short
      {{ odds(bowl.risk_more.value) }}, and most likely leaves {{ settings.words(bowl.left_more) }}.
    </p>
    <MixBase v-if="base" :base="base" />
    <LensNotes subject="bowls" />
    <h3>Risk of running short</h3>
    <ChoiceRow
      label="Risk of running short"
      :value="chosen"
      :choices="CHOICES"
      :columns="5"
      @change="setRisk"
    />
    <p class="soft">
      For every bowl of this order. Mixed like this, this one runs short {{ odds(bowl.risk.value) }}; with
      only {{ settings.words(bowl.need) }}, what the plan needs to the gram, it would
      {{ odds(bowl.risk_bare.value) }}.
    </p>
    <LikelyDots :bowl="bowl" />
    <FigureRow label="Needed as planned" :figure="bowl.need" />
    <FigureRow label="Reserve" :figure="bowl.reserve" />
    <h3>Likely left over</h3>
    <FigureRow label="Most likely" :figure="bowl.left.likely" />
    <FigureRow label="In 8 of 10, at least" :figure="bowl.left.least" />
    <FigureRow label="In 8 of 10, at most" :figure="bowl.left.most" />
    <ul v-if="leftovers.length" class="uses">
      <li v-for="words in leftovers" :key="words">{{ words }}</li>
    </ul>
    <h3>What each risk asks you to mix</h3>
    <FigureRow v-for="one in ODDS" :key="one" :label="`1 in ${one}`" :figure="bowl.at_risk[`1_in_${one}`]" />
    <template v-if="several">
      <h3>One bowl for all its tiers</h3>
      <FigureRow label="Needed together" :figure="bowl.need" />
      <FigureRow label="Needed tier by tier" :figure="bowl.apart" />
      <FigureRow label="Mixed tier by tier, a reserve each" :figure="bowl.mixed_apart" />
    </template>
    <h3>In this order out of the bowl</h3>
    <ol>
      <li
        v-for="(level, index) in steps"
        :key="level.key"
        draggable="true"
        :class="{ over: over === index }"
        @dragstart="dragged = index"
        @dragover.prevent="over = index"
        @dragend="over = -1"
        @drop.prevent="drop(index)"
      >
        <FigureRow :label="`${index + 1}. ${level.words}`" :figure="level.figure" />
        <span class="moves">
          <button
            class="act"
            :aria-label="`Earlier: ${level.words}`"
            :disabled="!mayMove(index, index - 1)"
            @click="move(index, index - 1)"
          >
            ↑
          </button>
          <button
            class="act"
            :aria-label="`Later: ${level.words}`"
            :disabled="!mayMove(index, index + 1)"
            @click="move(index, index + 1)"
          >
            ↓
          </button>
        </span>
      </li>
    </ol>
    <template v-if="bowl.order_cost">
      <FigureRow label="This order needs more, by" :figure="bowl.order_cost" />
      <div class="same">
        <button class="act" @click="setOrder(null)">Back to the order that needs least</button>
      </div>
    </template>
    <p v-else-if="steps.length > 1" class="soft">
      This order needs least. Drag a step here or in its bowl, or use the arrows; each tier keeps the order of
      its own work.
    </p>
    <WeighCup :key="bowl.medium" :medium="bowl.medium" />
  </section>
</template>

<style scoped>
.have {
  border-bottom: 1px solid var(--rule);
}

.uses {
  margin: 6px 0;
  padding-left: 18px;
}

.soft {
  padding: 6px 0;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

ol > li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: center;
  cursor: grab;
}

ol > li.over {
  background: var(--hover);
}

.moves {
  display: flex;
}

.moves .act {
  width: 40px;
  padding: 0;
}
</style>
