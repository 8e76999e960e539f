<script setup lang="ts">
/** A tier carved to its views: how it is rounded, what every layer is cut to, what comes off and what it takes. */
import { computed } from "vue";
import type { Figure } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import OutlineFile from "@/lenses/parts/OutlineFile.vue";
import TemplateLinks from "@/lenses/parts/TemplateLinks.vue";
import { useTier } from "@/lenses/parts/tier";
import { useCarving } from "@/order/carving";
import { begun } from "@/order/kinds";
import TierField from "@/order/TierField.vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import { useDesk } from "@/ui/desk";

const settings = useSettings();
const desk = useDesk();
const { order, tier, planned, tierWords, change } = useTier();
const { build, points, carving, slices, looked, seen, fromFront, setFront, draw, canRound, round, mirror } =
  useCarving();

const trouble = computed(() => desk.complaintAt(`#/design/tiers/${order.tier}/build`));
const detail = computed(() => {
  if (!build.value) return "Not carved to a view";
  const layers = slices.value.length === 1 ? "One layer" : `${slices.value.length} layers`;
  return `${layers} cut to a view of ${points.value.length} corners`;
});
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

function carve(): void {
  change((tier) => (tier.build = begun(tier, "build", "carved")));
}

const VIEWS = [
  { value: "side", words: "From the side" },
  { value: "front", words: "From the front" },
] as const;
const ABOVE = "It is as wide as the tin, whose shape is the view from above.";

/** A drawing of the side is taken at its true size; one of the front is drawn out to the cake. */
function read(points_mm: [number, number][], width: number): void {
  if (fromFront.value) draw(points_mm);
  else readSide(points_mm, width);
}

function readSide(points_mm: [number, number][], width: number): void {
  change((tier) => {
    if (tier.build.kind !== "carved") return;
    tier.build.points_mm = points_mm;
    tier.tin_diameter_mm = width;
  });
}
</script>

<template>
  <section v-if="tier && planned">
    <LensHead words="Carve" :detail="detail" />
    <template v-if="build">
      <FigureRow label="Carved, high" :figure="planned.layers.height" main />
      <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
      <LensNotes lens="carve" />
      <h3>The view from the {{ fromFront ? "front" : "side" }}</h3>
      <ChoiceRow
        label="The view that is drawn"
        :value="seen"
        :choices="VIEWS"
        @change="(view) => (seen = view)"
      />
      <template v-if="seen === 'side' || fromFront">
        <p class="soft">
          Drag its corners, or step to one and use the arrow keys. A ring between two makes another, Delete
          takes one out.
          {{ fromFront ? "Each section is drawn out to its own height and depth." : ABOVE }}
        </p>
        <div class="same two">
          <button class="act" :disabled="!canRound" @click="round">Round its corners</button>
          <button class="act" @click="mirror">{{ fromFront ? "Front to back" : "Left to right" }}</button>
        </div>
        <OutlineFile @read="read" />
      </template>
      <div v-if="seen === 'front'" class="same">
        <button class="act" @click="setFront(!fromFront)">
          {{ fromFront ? "Round its sections instead" : "Draw its sections" }}
        </button>
      </div>
      <div v-if="seen === 'side'" class="rows">
        <TierField field="tin_diameter_mm" :figure="`tiers.${order.tier + 1}.layers.cake_diameter`" />
      </div>
      <KindFields v-if="!build.front_mm" part="build" />
      <h3>Cut each layer to</h3>
      <div class="slices" role="radiogroup" aria-label="The layer that is looked at">
        <label
          v-for="one in [...slices].reverse()"
          :key="one.number"
          :class="{ chosen: one.number === looked }"
        >
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
          With a {{ baked.one_more.shape }} tin of {{ settings.words(baked.one_more.across) }} as well it
          would take {{ settings.words(baked.one_more.saves) }} less.
        </p>
        <FigureRow label="Carved off" :figure="baked.offcut" />
      </template>
      <h3>What it comes to</h3>
      <FigureRow label="Cake left" :figure="planned.layers.cake_weight" />
      <FigureRow label="Surface to coat" :figure="carving?.surface" />
      <FigureRow label="Both coats take" :figure="carving?.coats" />
      <FigureRow label="By its surface alone" :figure="carving?.by_surface" />
      <TemplateLinks heading="Layers at true size" />
      <LensNotes lens="carve" cautions />
    </template>
    <template v-else>
      <p class="soft">
        A carved tier is cut out of stacked layers to a view from the side that you draw. From above it keeps
        the outline of its tin.
      </p>
      <div class="same">
        <button class="act main" @click="carve">Carve the {{ tierWords }}</button>
      </div>
    </template>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
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
