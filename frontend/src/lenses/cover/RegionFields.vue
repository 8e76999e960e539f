<script setup lang="ts">
/**
 * Piping over a part of the finished outside, from one height to another, all round or on one side: of what, how proud,
 * and what it takes.
 */
import type { Tier } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { useTier } from "@/lenses/parts/tier";
import PickField from "@/ui/PickField.vue";
import PipedParts from "./PipedParts.vue";

type Region = Tier["regions"][number];

const SIDES = [
  { value: "front", words: "on the front half", turn_deg: 0 },
  { value: "right", words: "on the right half", turn_deg: 90 },
  { value: "back", words: "on the back half", turn_deg: 180 },
  { value: "left", words: "on the left half", turn_deg: -90 },
] as const;
const ALL = { value: "all", words: "all round" } as const;
const OWN = { value: "own", words: "as said below" } as const;
type Side = (typeof SIDES)[number]["value"] | "all" | "own";

const { planned } = useTier();
const handbook = useHandbook();
const most = handbook.limit("regions").high;
const round = handbook.limit("round_deg").high;
/** As much of a tier as a foot of grass takes. */
const FOOT = 0.3;

const isSided = (region: Region): boolean => region.round_deg < round;

function sideOf(region: Region): Side {
  if (!isSided(region)) return "all";
  const half = SIDES.find((side) => (side.turn_deg - region.turn_deg) % round === 0);
  return half && region.round_deg === round / 2 ? half.value : "own";
}

function choicesOf(region: Region): { value: Side; words: string }[] {
  return [ALL, ...SIDES, ...(sideOf(region) === "own" ? [OWN] : [])];
}

function lying(side: Side): Partial<Region> {
  const half = SIDES.find((one) => one.value === side);
  if (side === "all") return { round_deg: round, turn_deg: 0 };
  return half ? { round_deg: round / 2, turn_deg: half.turn_deg } : {};
}

/** How far round it goes, and where its middle is, asks only what does not go all round. */
const asked = (region: Region) => (isSided(region) ? undefined : ["low", "high", "relief_mm"]);

const rows = (region: Region) => {
  const own = planned.value?.regions[`region_${region.id}`];
  return [
    { label: "Begins, up the tier", figure: own?.low },
    { label: "Ends, up the tier", figure: own?.high },
    { label: "Piped, weighs", figure: own?.weight },
  ];
};

/** The first runs round the foot, the next from where the last one ends up over the top. */
function begin(tier: Tier): Omit<Region, "medium" | "id"> {
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
  >
    <template #default="{ piped, set }">
      <PickField
        label="Lies"
        :value="sideOf(piped)"
        :choices="choicesOf(piped)"
        @change="(side) => set(lying(side))"
      />
    </template>
  </PipedParts>
</template>
