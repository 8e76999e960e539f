<script setup lang="ts">
/** The filled cake as it was measured, and the extra coat each side takes to come straight and level. */
import { computed } from "vue";
import type { Figure, Tier } from "@/api/types";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import { useTier } from "@/lenses/parts/tier";
import MeasureField from "@/ui/MeasureField.vue";

type Measured = NonNullable<Tier["measured"]>;
type Place = [list: "heights_mm" | "top_mm" | "foot_mm", index: number, words: string];

const { order, tier, planned, change } = useTier();
const measured = computed(() => tier.value?.measured);
const plan = computed(() => planned.value?.coats.build_up);
const SIDES = ["back", "right", "front", "left"] as const;
const PLACES: readonly Place[] = [
  ...SIDES.map((side, index): Place => ["heights_mm", index, `High at the ${side}`]),
  ["top_mm", 0, "Top, left to right"],
  ["top_mm", 1, "Top, front to back"],
  ["foot_mm", 0, "Foot, left to right"],
  ["foot_mm", 1, "Foot, front to back"],
];

/** What is less than this a spatula cannot tell, mm. */
const TELLS = 0.05;
type Row = [label: string, figure: Figure | undefined, apart: number];
/** Only what differs from the plan: where a side is as it was planned there is nothing to build up. */
const differs = computed(() => {
  if (!plan.value) return [];
  const { sides, width, planned_width, height, planned_height } = plan.value;
  const built = (label: string, figure: Figure | undefined): Row => [label, figure, figure?.value ?? 0];
  const [wider, higher] = [width.value - planned_width.value, height.value - planned_height.value];
  const rows: Row[] = [
    ...SIDES.flatMap((side) => [
      built(`Build up ${side}, at the top`, sides[side]?.top),
      built(`Build up ${side}, at the foot`, sides[side]?.foot),
      built(`Raise the top, ${side}`, sides[side]?.rise),
    ]),
    ["Coated as wide as", width, wider],
    ["Planned, across", planned_width, wider],
    ["Coated as high as", height, higher],
    ["Planned, high", planned_height, higher],
  ];
  return rows.filter(([, , apart]) => Math.abs(apart) > TELLS);
});

function begin(): void {
  change((tier) => {
    const layers = planned.value?.layers;
    if (!layers) return;
    const round = (mm: number): number => Math.round(mm * 2) / 2;
    const [high, wide] = [round(layers.height.value), round(layers.cake_diameter.value)];
    const long = round(layers.cake_length?.value ?? wide);
    tier.measured = { heights_mm: [high, high, high, high], top_mm: [wide, long], foot_mm: [wide, long] };
  });
}

function set(list: keyof Measured, index: number, value: number | null): void {
  change((tier) => {
    if (tier.measured && value !== null) (tier.measured[list] as number[])[index] = value;
  });
}
</script>

<template>
  <h3>The cake as it came out</h3>
  <p v-if="!measured" class="soft">Leaning or out of round? Measure it, and see where to build up or trim.</p>
  <div v-if="!measured" class="same">
    <button class="act" @click="begin">Measure this tier</button>
  </div>
  <template v-else>
    <div class="rows">
      <MeasureField
        v-for="[list, index, words] in PLACES"
        :key="words"
        :label="words"
        :value="measured[list][index]"
        :limit="list === 'heights_mm' ? 'target_height_mm' : 'length_mm'"
        :pointer="`#/design/tiers/${order.tier}/measured/${list}/${index}`"
        @change="(value) => set(list, index, value)"
      />
    </div>
    <template v-if="plan">
      <FigureRow v-for="[label, figure] in differs" :key="label" :label="label" :figure="figure" />
      <p v-if="!differs.length" class="soft">It came out as planned: nothing to build up.</p>
      <FigureRow label="Or trim level, at most" :figure="plan.trim" />
      <FigureRow label="Extra coat in all" :figure="plan.weight" />
    </template>
    <div class="same">
      <button class="act" @click="change((tier) => (tier.measured = null))">Forget these measures</button>
    </div>
  </template>
</template>
