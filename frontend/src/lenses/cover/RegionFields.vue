<script setup lang="ts">
/** Piping over a part of the finished outside, from one height to another: of what, how proud, and what it takes. */
import type { Tier } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { useTier } from "@/lenses/parts/tier";
import PipedParts from "./PipedParts.vue";

const { planned } = useTier();
const most = useHandbook().limit("regions").high;
/** As much of a tier as a foot of grass takes. */
const FOOT = 0.3;

const rows = (index: number) => {
  const told = planned.value?.regions[`region_${index + 1}`];
  return [
    { label: "Begins, up the tier", figure: told?.low },
    { label: "Ends, up the tier", figure: told?.high },
    { label: "Piped, weighs", figure: told?.weight },
  ];
};

/** The first runs round the foot, the next from where the last one ends up over the top. */
function begin(tier: Tier): Omit<Tier["regions"][number], "medium"> {
  const from = Math.max(0, ...tier.regions.map((region) => region.high));
  return from > 0 && from < 0.95 ? { low: from, high: 1 } : { low: 0, high: FOOT };
}
</script>

<template>
  <PipedParts
    v-if="planned && !planned.foot"
    part="regions"
    name="Piped regions"
    one="region"
    :most="most"
    :rows="rows"
    :begin="begin"
  />
</template>
