<script setup lang="ts">
/** What every layer of a carved tier is cut to and baked in, and what all of it comes to. */
import { computed, ref } from "vue";
import type { Figure } from "@/api/types";
import SheetCut from "@/drawing/SheetCut.vue";
import { useHandbook } from "@/kitchen/handbook";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import TaskList from "@/lenses/parts/TaskList.vue";
import TemplateLinks from "@/lenses/parts/TemplateLinks.vue";
import { useTier } from "@/lenses/parts/tier";
import { useCarving } from "@/order/carving";
import TierField from "@/order/TierField.vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import ChoiceRows from "@/ui/ChoiceRows.vue";
import FractionText from "@/ui/FractionText.vue";

const handbook = useHandbook();
const settings = useSettings();
const { order, planned } = useTier();
const { carving, baked, slices, slice, looked } = useCarving();
/** What is cut out of the layer that is looked at, in words. */
const cutOut = computed(() =>
  Object.keys(slice.value?.cut_out ?? {})
    .map((name) => (name === "room" ? "the hidden room" : name.replace("_", " ")))
    .join(", "),
);
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
/** From the top layer down, as they lie. */
const layers = computed(() => [...slices.value].reverse().map((one) => ({ value: one.number, one })));
const times = (count: number): string => (count === 1 ? "baked once" : `baked ${count} times`);
const layersOf = (numbers: readonly number[]): string =>
  `${numbers.length === 1 ? "layer" : "layers"} ${numbers.join(", ")}`;
const tinWords = (shape: string): string => handbook.wordOf("tins", shape);
/** Two sides of something; of what is as long as it is wide one. */
const sides = (across: Figure, along: Figure | null): string =>
  [across, along]
    .filter((side) => side !== null)
    .map((side) => settings.words(side))
    .join(" × ");
</script>

<template>
  <h3>Cut each layer to</h3>
  <ChoiceRows
    v-slot="{ choice: { one } }"
    label="The layer that is looked at"
    :value="looked"
    :choices="layers"
    @change="(number) => (looked = number)"
  >
    <b>{{ one.number }}</b>
    <span class="layer"><FractionText :text="sides(one.wide, one.long)" /></span>
    <small>the outline moves <FractionText :text="settings.words(one.moves)" /> up it</small>
  </ChoiceRows>
  <FigureRow :label="`Layer ${slice?.number}, area at its largest`" :figure="slice?.area" />
  <FigureRow label="Once round it there" :figure="slice?.girth" />
  <FigureRow label="Cake in it" :figure="slice?.volume" />
  <FigureRow label="Between it and the next" :figure="slice?.filled" />
  <FigureRow label="Wall round the hidden room" :figure="planned?.layers.cavity?.wall" />
  <p v-if="cutOut" class="soft">Cut out of it: {{ cutOut }}. Its template has the edge at each face.</p>
  <div class="rows">
    <TierField field="layers/dome_mm" />
  </div>
  <FigureRow label="Of the top, beyond the dome" :figure="carving?.dome?.missing" />
  <template v-if="baked">
    <h3>Baked in</h3>
    <KindFields part="build" :only="['most_bakes', 'paste_mm']" />
    <div v-for="(one, key) in baked.tins" :key="key" class="baked">
      <b
        ><FractionText
          :text="`${tinWords(one.shape)} ${sides(one.across, one.length)}${one.owned ? '' : ', to get'}`"
      /></b>
      <span>{{ times(one.bakes.value) }}, for {{ layersOf(one.layers) }}</span>
      <template v-for="(cut, name) in one.beside" :key="name">
        <span>Side by side out of one: {{ layersOf(cut.layers) }}</span>
        <SheetCut
          :cut="cut"
          :says="`${layersOf(cut.layers)} side by side on ${sides(cut.wide, cut.round ? null : cut.high)} of cake`"
        />
      </template>
      <FigureRow label="Batter" :figure="one.batter" />
    </div>
    <FigureRow v-if="Object.keys(baked.tins).length > 1" label="Batter in all" :figure="baked.batter" />
    <FigureRow label="Bakes in all" :figure="baked.bakes" />
    <FigureRow label="Oven loads" :figure="baked.loads" />
    <p v-if="baked.one_more" class="soft">
      With a {{ tinWords(baked.one_more.shape) }} tin of
      <FractionText :text="settings.words(baked.one_more.across)" /> as well it would take
      {{ settings.words(baked.one_more.saves) }} less.
    </p>
    <template v-if="baked.built_paste">
      <FigureRow
        v-for="one in baked.built"
        :key="one.layer"
        :label="`Of layer ${one.layer}, beyond its tin`"
        :figure="one.beyond"
      />
      <FigureRow label="Modelling paste to build that of" :figure="baked.built_paste" />
      <FigureRow label="Of that, coat" :figure="baked.built_coat" />
    </template>
    <FigureRow label="Carved off, by volume" :figure="baked.offcut_volume" />
    <FigureRow label="Carved off" :figure="baked.offcut" />
    <FigureRow label="As modelling paste, up to" :figure="baked.paste" />
    <FigureRow label="With of the coat, besides" :figure="baked.paste_coat" />
    <p class="soft">
      Build of it what no tin reaches: a point, a swoop, what hangs out. That coat is not in the bowls.
    </p>
  </template>
  <h3>What it comes to</h3>
  <FigureRow label="Cake left" :figure="planned?.layers.cake_weight" />
  <FigureRow label="It stands on" :figure="carving?.foot" />
  <FigureRow label="Flat on top, for a tier" :figure="carving?.flat_top" />
  <template v-if="carving?.neck">
    <FigureRow label="Its neck, up from the foot" :figure="carving.neck.up" />
    <FigureRow label="What lies above it" :figure="carving.neck.above" />
    <FigureRow label="It presses there" :figure="carving.neck.pressed" />
  </template>
  <FigureRow label="Surface to coat" :figure="carving?.surface" />
  <FigureRow label="Both coats take" :figure="carving?.coats" />
  <FigureRow label="By its surface alone" :figure="carving?.by_surface" />
  <FigureRow label="A smoother bends to" :figure="carving?.bent" />
  <h3>Lines scored on it</h3>
  <KindFields part="build" :only="['scored_mm', 'scored_run']" />
  <TaskList v-if="carving?.tasks.length" name="Carving, step by step" :tasks="carving.tasks" headed />
  <FigureRow label="Hands-on time, without waiting" :figure="carving?.hands_on" />
  <TemplateLinks heading="Layers and views at true size" />
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

b,
.layer {
  font: 600 18px var(--serif);
}

small {
  grid-column: 2;
  color: var(--soft);
  font-size: 15px;
}

.baked {
  display: grid;
  padding-top: 8px;
}

.baked span {
  color: var(--soft);
}
</style>
