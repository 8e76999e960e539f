<script setup lang="ts">
/** What is cut out of a carved tier, filled up with something else or left empty: a bite, a window, a hidden room. */
import { computed, ref } from "vue";
import type { Solid, Tier } from "@/api/types";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import SilhouetteIcon from "@/lenses/parts/SilhouetteIcon.vue";
import SilhouetteRow from "@/lenses/parts/SilhouetteRow.vue";
import { mediaFor, useTier } from "@/lenses/parts/tier";
import { useHandbook } from "@/kitchen/handbook";
import { choicesOf, kindsOf } from "@/order/kinds";
import MediumField from "@/order/MediumField.vue";
import { newId } from "@/order/partIds";
import { newSolid, recast } from "@/order/solids";
import ChoiceRows from "@/ui/ChoiceRows.vue";
import PickField from "@/ui/PickField.vue";

type Opening = Extract<Tier["build"], { kind: "carved" }>["openings"][number];

/** What a new one is filled with. */
const FIRST = "american_buttercream";
const IS = [
  { value: false, words: "filled up" },
  { value: true, words: "left empty" },
] as const;

const { order, tier, planned, change } = useTier();
const openings = computed(() => {
  const build = tier.value?.build;
  return build && "openings" in build ? build.openings : [];
});
const most = useHandbook().limit("openings").high;
const held = ref(0);
const at = computed(() => Math.min(held.value, openings.value.length - 1));
const inHand = computed(() => openings.value[at.value]);
const listed = computed(() => openings.value.map((one, index) => ({ value: index, one })));
const figures = computed(() => planned.value?.carving?.openings[`opening_${inHand.value?.id}`]);
const measures = computed(() => {
  const found = figures.value;
  if (!found) return [];
  return [
    ["Takes out of the tier", found.volume],
    ["Cake that comes out", found.cake],
    ["Filling that comes out", found.filling],
    ["Fills it", found.weight],
    ["Cake about it, at its thinnest", found.wall],
  ] as const;
});
const rows = computed(() => new Map(kindsOf("build/solids").map((row) => [row.kind, row])));
const media = computed(() => mediaFor("openings"));
/** All that a solid asks for but whether it is joined, which an opening never is. */
const asked = computed(() => {
  const row = rows.value.get(inHand.value?.solid.kind ?? "");
  return [...(row?.asks ?? []), ...(row?.picks ?? [])]
    .map((one) => one.field)
    .filter((field) => field !== "does");
});

function alter(how: (openings: Opening[]) => Opening[]): void {
  change((tier) => {
    if ("openings" in tier.build) tier.build.openings = how(tier.build.openings);
  });
}

function set(to: Partial<Opening>): void {
  alter((list) => list.map((one, index) => (index === at.value ? { ...one, ...to } : one)));
}

/** A ball out of the front right of the cake, a third as wide as the tier, where the section shows it. */
function add(): void {
  const wide = tier.value?.tin_diameter_mm ?? 0;
  const high = planned.value?.layers.height.value ?? 0;
  const across_mm = Math.max(10, Math.round(wide / 3));
  const z_mm = Math.round((high - across_mm) / 2);
  const solid = { ...newSolid("ball"), across_mm, x_mm: Math.round(wide / 3), z_mm } as Solid;
  held.value = openings.value.length;
  alter((list) => [...list, { id: newId(), solid, medium: FIRST, colour: null }]);
}

function remove(): void {
  const index = at.value;
  held.value = Math.max(0, index - 1);
  alter((list) => list.toSpliced(index, 1));
}

function become(kind: Solid["kind"]): void {
  const before = inHand.value?.solid;
  if (before) set({ solid: recast(before, kind) });
}
</script>

<template>
  <div role="group" aria-labelledby="openings">
    <h3 id="openings">Openings and hidden rooms</h3>
    <p v-if="!openings.length" class="soft">
      Cut a bite, a window or a heart out of the stacked cake and fill it flush with something else, or leave
      a room in it empty. It is placed from the axis and the foot, at the size of the tier.
    </p>
    <ChoiceRows
      v-else
      v-slot="{ choice: { value: index, one } }"
      label="The opening in hand"
      :value="at"
      :choices="listed"
      @change="(index) => (held = index)"
    >
      <SilhouetteIcon :icon="rows.get(one.solid.kind)?.icon" :out="true" />
      <span>{{ index + 1 }}. {{ rows.get(one.solid.kind)?.words ?? one.solid.kind }}</span>
    </ChoiceRows>
    <template v-if="inHand">
      <PickField
        :label="`Opening ${at + 1} is`"
        :value="inHand.medium === null"
        :choices="IS"
        @change="(empty) => set({ medium: empty ? null : FIRST, colour: null })"
      />
      <MediumField
        v-if="inHand.medium !== null"
        label="Filled with"
        :medium="inHand.medium"
        :colour="inHand.colour"
        :kinds="media"
        @medium="(medium) => set({ medium })"
        @colour="(colour) => set({ colour })"
      />
      <SilhouetteRow
        :label="`What opening ${at + 1} is cut to`"
        :value="inHand.solid.kind"
        :choices="choicesOf<Solid['kind']>('build/solids')"
        @change="become"
      />
      <KindFields :key="`${order.tier}-${at}`" :part="`build/openings/${at}/solid`" :only="asked" />
      <template v-if="figures">
        <FigureRow v-for="[words, figure] in measures" :key="words" :label="words" :figure="figure" />
        <p v-if="!figures.open" class="soft">
          It opens nowhere: it is cut out of each layer
          {{
            inHand.medium === null
              ? "as the cake is stacked, and left empty"
              : "and filled up as the cake is stacked"
          }}.
        </p>
      </template>
    </template>
    <div class="same">
      <button class="act" :disabled="openings.length >= most" @click="add">
        {{ openings.length ? "Another opening" : "Cut an opening" }}
      </button>
      <button v-if="openings.length" class="act" @click="remove">Take this one out</button>
    </div>
  </div>
</template>
