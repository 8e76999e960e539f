<script setup lang="ts">
/**
 * Piping over a part of the finished outside, from one height to another, all round or on one side: of what, how proud,
 * and what it takes.
 */
import type { Tier } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { useTier } from "@/lenses/parts/tier";
import PipedParts from "./PipedParts.vue";

type Region = Tier["regions"][number];

const { tier, planned } = useTier();
const handbook = useHandbook();
const most = handbook.limit("regions").high;
const round = handbook.limit("round_deg").high;
/** As much of a tier as a foot of grass takes. */
const FOOT = 0.3;

const rows = (index: number) => {
  const told = planned.value?.regions[`region_${index + 1}`];
  return [
    { label: "Begins, up the tier", figure: told?.low },
    { label: "Ends, up the tier", figure: told?.high },
    ...(isSided(tier.value?.regions[index])
      ? [{ label: "Of what goes all round", figure: told?.share }]
      : []),
    { label: "Piped, weighs", figure: told?.weight },
  ];
};

const isSided = (region: Region | undefined): boolean => (region?.round_deg ?? round) < round;
/** Where its middle is asks only what has one. */
const asked = (region: Region) =>
  isSided(region) ? undefined : (["low", "high", "round_deg", "relief_mm"] as const);

/** The first runs round the foot, the next from where the last one ends up over the top. */
function begin(tier: Tier): Omit<Region, "medium"> {
  const from = Math.max(0, ...tier.regions.map((region) => region.high));
  const band = from > 0 && from < 0.95 ? { low: from, high: 1 } : { low: 0, high: FOOT };
  return { ...band, round_deg: round, turn_deg: 0 };
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
    :asked="asked"
    :begin="begin"
  />
</template>
