<script setup lang="ts">
import { computed, nextTick, ref } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KitNeeds from "@/lenses/parts/KitNeeds.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import { type BoardShape, boardWords } from "@/order/boards";
import { newOfKind, isPlate } from "@/order/kinds";
import { useOrder } from "@/order/order";
import { newId } from "@/order/partIds";
import TierField from "@/order/TierField.vue";
import TravelFields from "@/lenses/parts/TravelFields.vue";
import { useDesk } from "@/ui/desk";
import MeasureField from "@/ui/MeasureField.vue";
import PickField from "@/ui/PickField.vue";
import TextField from "@/ui/TextField.vue";
import BuildPicker from "./BuildPicker.vue";
import ColourFields from "./ColourFields.vue";
import ForWhom from "./ForWhom.vue";
import ShapePicker from "./ShapePicker.vue";
import UsualFields from "./UsualFields.vue";

const order = useOrder();
const desk = useDesk();
const handbook = useHandbook();
const list = ref<HTMLElement>();

const design = computed(() => order.document?.design);
const tiers = computed(() =>
  (design.value?.tiers ?? [])
    .map((tier, index) => ({ tier, index, name: order.plan?.tiers[index]?.name ?? "" }))
    .reverse(),
);
const most = computed(() => handbook.limit("tiers").high);
const boardChoices = computed(() => [
  { value: "" as const, words: `as the cake: ${boardWords(order.plan?.stack.base_shape)}` },
  ...handbook.words<BoardShape>("boards"),
]);
const detail = computed(() => {
  const count = tiers.value.length;
  return count === 1 ? "A single cake" : `${count} tiers, listed as they stand`;
});
/** A new top tier: like the one below it, two inches narrower as tiers usually step down, to three inches. */
function addTier(): void {
  order.edit((draft) => {
    const below = draft.design.tiers.at(-1);
    if (!below) return;
    const tier = structuredClone(below);
    tier.id = newId();
    tier.name = null;
    tier.tin_diameter_mm = Math.max(
      Math.min(below.tin_diameter_mm, 76.2),
      Math.round((below.tin_diameter_mm - 50.8) * 100) / 100,
    );
    if (isPlate(tier.final)) tier.final = newOfKind(tier, "final", "freehand");
    if (tier.build.kind !== "straight") tier.build = newOfKind(tier, "build", tier.build.kind);
    draft.design.tiers.push(tier);
  });
  order.tier = (order.document?.design.tiers.length ?? 1) - 1;
}

function move(index: number, by: number): void {
  order.edit((draft) => {
    const [tier] = draft.design.tiers.splice(index, 1);
    if (tier) draft.design.tiers.splice(index + by, 0, tier);
  });
  order.tier = index + by;
}

function remove(index: number): void {
  order.edit((draft) => draft.design.tiers.splice(index, 1));
  void nextTick(() => list.value?.querySelector<HTMLElement>("button.name")?.focus());
}

function rename(index: number, name: string): void {
  order.edit((draft) => {
    const tier = draft.design.tiers[index];
    if (tier) tier.name = name || null;
  });
}
</script>

<template>
  <section v-if="order.document && design && order.plan">
    <LensHead words="Brief" whole :detail="detail" />
    <FigureRow label="Whole cake, high" :figure="order.plan.stack.height" main />
    <label class="due">
      Due
      <input
        type="datetime-local"
        :value="order.document.due?.slice(0, 16) ?? ''"
        @change="order.edit((draft) => (draft.due = ($event.target as HTMLInputElement).value || null))"
      />
    </label>
    <p v-if="desk.complaintAt('#/due')" class="wrong" role="alert">{{ desk.complaintAt("#/due") }}</p>
    <LensNotes subject="order" />
    <ForWhom />
    <h3>The drive</h3>
    <TravelFields />
    <h3>Tiers</h3>
    <button class="act wide" :disabled="tiers.length >= most" @click="addTier">Add a tier on top</button>
    <ol ref="list">
      <li v-for="{ tier, index, name } in tiers" :key="index" :class="{ chosen: index === order.tier }">
        <div class="who">
          <TextField
            :label="`Name of tier ${index + 1}`"
            :value="tier.name ?? ''"
            :placeholder="name"
            :most="80"
            empty
            @focus="order.tier = index"
            @change="(text) => rename(index, text)"
          />
          <TierField field="tin_diameter_mm" :index="index" quiet />
        </div>
        <div class="acts">
          <button
            class="act"
            :aria-label="`Move ${name} up`"
            :disabled="index === tiers.length - 1"
            @click="move(index, 1)"
          >
            ↑
          </button>
          <button
            class="act"
            :aria-label="`Move ${name} down`"
            :disabled="index === 0"
            @click="move(index, -1)"
          >
            ↓
          </button>
          <button
            class="act"
            :aria-label="`Take ${name} away`"
            :disabled="tiers.length === 1"
            @click="remove(index)"
          >
            ×
          </button>
        </div>
      </li>
    </ol>
    <ShapePicker />
    <BuildPicker />
    <ColourFields />
    <h3>Base board</h3>
    <PickField
      label="Shape"
      :value="design.base_board.shape ?? ''"
      :choices="boardChoices"
      @change="(shape) => order.edit((draft) => (draft.design.base_board.shape = shape || null))"
    />
    <div class="rows">
      <MeasureField
        label="Across"
        limit="board_diameter_mm"
        :value="design.base_board.diameter_mm"
        :usual="order.plan.stack.base_diameter.value"
        :rounding="order.plan.stack.base_diameter.rounding"
        figure="stack.base_diameter"
        @change="(value) => order.edit((draft) => (draft.design.base_board.diameter_mm = value))"
      />
      <MeasureField
        label="Thick"
        limit="board_thickness_mm"
        :value="design.base_board.thickness_mm"
        :usual="order.document.practice.base_board_mm"
        figure="stack.base_thickness"
        @change="(value) => order.edit((draft) => (draft.design.base_board.thickness_mm = value))"
      />
    </div>
    <div v-if="order.plan.stack.base_length" class="rows">
      <MeasureField
        label="Long"
        limit="board_diameter_mm"
        :value="design.base_board.length_mm"
        :usual="order.plan.stack.base_length.value"
        :rounding="order.plan.stack.base_length.rounding"
        figure="stack.base_length"
        @change="(value) => order.edit((draft) => (draft.design.base_board.length_mm = value))"
      />
    </div>
    <FigureRow label="Whole cake weighs about" :figure="order.plan.stack.weight" />
    <KitNeeds whole :tools="['base board', 'board']" />
    <LensNotes subject="order" cautions />
    <UsualFields />
  </section>
</template>

<style scoped>
.due {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 48px;
  border-bottom: 1px solid var(--rule);
}

.due input:hover {
  background: var(--tint);
}

.wide {
  width: 100%;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 8px;
  border-bottom: 1px solid var(--rule);
}

li.chosen {
  box-shadow: inset 4px 0 0 var(--amber-line);
  background: var(--hover);
}

.who {
  flex: 1;
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
}

.who > :first-child {
  flex: 1;
}

.acts {
  display: flex;
}

.acts .act {
  width: 40px;
  padding: 0;
}

.acts .act + .act {
  border-left: 0;
}
</style>
