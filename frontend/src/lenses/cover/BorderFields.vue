<script setup lang="ts">
/** Piped borders along the foot and the top edge: how wide their bead, of what, and what they take. */
import type { Tier } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { useTier } from "@/lenses/parts/tier";
import PipedParts from "./PipedParts.vue";

const { planned } = useTier();
const most = useHandbook().limit("borders").high;

const rows = (border: Tier["borders"][number]) => {
  const own = planned.value?.borders[`border_${border.id}`];
  return [
    { label: "Round the edge", figure: own?.length },
    { label: "Piped, weighs", figure: own?.weight },
  ];
};

/** The first lies along the foot, the next along the top edge. */
function begin(tier: Tier): Omit<Tier["borders"][number], "medium" | "id"> {
  const footed = tier.borders.some((border) => border.at === "foot");
  return { at: footed ? "top" : "foot", bead: "half" };
}
</script>

<template>
  <PipedParts part="borders" name="Borders" one="border" :most="most" :rows="rows" :begin="begin" />
</template>
