<script setup lang="ts">
/** The colour of each patch of a cover, where it is not that of all of it. */
import { computed } from "vue";
import { useTier } from "@/lenses/parts/tier";
import PickField from "@/ui/PickField.vue";

const { order, tier, planned, change } = useTier();
const cover = computed(() => (tier.value?.cover.kind === "patches" ? tier.value.cover : null));
/** Patches as they are cut, by their numbers. */
const patches = computed(() =>
  Object.entries(planned.value?.cover?.pieces ?? {})
    .filter(([key]) => key.startsWith("patch_"))
    .map(([, piece], at) => ({ at, name: piece.name })),
);
const choices = computed(() => [
  { value: "", words: "as the cover" },
  ...(order.document?.design.colours ?? []).map(({ name }) => ({ value: name, words: name })),
]);

function set(at: number, colour: string): void {
  change((tier) => {
    if (tier.cover.kind !== "patches") return;
    const found = [...tier.cover.patch_colours];
    while (found.length <= at) found.push({ colour: null });
    found[at] = { colour: colour || null };
    while (found.length && !found.at(-1)?.colour) found.pop();
    tier.cover.patch_colours = found;
  });
}
</script>

<template>
  <template v-if="cover && patches.length && choices.length > 1">
    <h3>Colours of the patches</h3>
    <PickField
      v-for="one in patches"
      :key="one.at"
      :label="one.name"
      :value="cover.patch_colours[one.at]?.colour ?? ''"
      :choices="choices"
      @change="(colour) => set(one.at, colour)"
    />
  </template>
</template>
