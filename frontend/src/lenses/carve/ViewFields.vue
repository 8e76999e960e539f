<script setup lang="ts">
/** The views a tier is carved to: which one is drawn, how it is drawn, and how what lies between is rounded. */
import { computed } from "vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import SectionFields from "./SectionFields.vue";
import OutlineFile from "@/lenses/parts/OutlineFile.vue";
import { useTier } from "@/lenses/parts/tier";
import { useCarving } from "@/order/carving";
import PictureFields from "./PictureFields.vue";
import TierField from "@/order/TierField.vue";
import { useSections } from "@/order/sections";
import ChoiceRow from "@/ui/ChoiceRow.vue";

const { change } = useTier();
const carving = useCarving();
const { build, seen, view, fromAbove, points, smooth, corner: held } = carving;
const { setAbove, draw, canRound, round, mirror, setSmooth, remove, canRemove } = carving;
const corner = computed(() => Math.min(held.value, points.value.length - 1));
const isSmooth = computed(() => smooth.value.includes(corner.value));
const { asked } = useSections();

const VIEWS = [
  { value: "side", words: "Side" },
  { value: "front", words: "Front" },
  { value: "above", words: "Above" },
] as const;
const SAYS = {
  side: "It is as wide as the tin, whose shape is the view from above.",
  front: "Each section is drawn out to its own height and depth.",
  above: "It is drawn out to the width of the tin. The front is below.",
} as const;
const MIRROR = { side: "Left to right", front: "Front to back", above: "Left to right" } as const;

/** A drawing of the side or from above is taken at its true size; one of the front is drawn out to the cake. */
function read(points_mm: [number, number][], width: number): void {
  if (view.value === "side") readSide(points_mm, width);
  else draw(points_mm);
  if (view.value === "above") change((tier) => (tier.tin_diameter_mm = width));
}

function readSide(points_mm: [number, number][], width: number): void {
  change((tier) => {
    if (tier.build.kind !== "carved") return;
    Object.assign(tier.build, { points_mm, smooth_corners: [] });
    tier.tin_diameter_mm = width;
  });
}
</script>

<template>
  <template v-if="build">
    <h3>The view from {{ seen === "above" ? "above" : `the ${seen}` }}</h3>
    <ChoiceRow
      label="The view that is drawn"
      :value="seen"
      :choices="VIEWS"
      @change="(view) => (seen = view)"
    />
    <template v-if="seen === view">
      <p class="soft">
        Drag its corners, or step to one and use the arrow keys. A ring between two makes another, Delete
        takes one out, S makes it smooth: the line runs through it in a curve.
        {{ SAYS[view] }}
      </p>
      <div class="same two" role="group" :aria-label="`Corner ${corner + 1}`">
        <span>Corner {{ corner + 1 }}, {{ isSmooth ? "smooth" : "where the line turns" }}</span>
        <button class="act" @click="setSmooth(corner, !isSmooth)">
          {{ isSmooth ? "Let it turn" : "Make it smooth" }}
        </button>
        <button class="act" :disabled="!canRemove" @click="remove(corner)">Take it out</button>
      </div>
      <div class="same two">
        <button class="act" :disabled="!canRound" @click="round">Round its corners</button>
        <button class="act" @click="mirror">{{ MIRROR[view] }}</button>
      </div>
      <OutlineFile @read="read" />
      <PictureFields />
    </template>
    <SectionFields v-if="seen === 'front'" />
    <div v-if="seen === 'above'" class="same">
      <p v-if="!fromAbove" class="soft">From above it is as the tin.</p>
      <button class="act" @click="setAbove(!fromAbove)">
        {{ fromAbove ? "As a round tin instead" : "Draw it from above" }}
      </button>
    </div>
    <div v-if="seen !== 'front'" class="rows">
      <TierField field="tin_diameter_mm" />
    </div>
    <KindFields v-if="asked.length" part="build" :only="asked" />
  </template>
</template>

<style scoped>
.two > span {
  grid-column: 1 / -1;
  color: var(--soft);
}
</style>
