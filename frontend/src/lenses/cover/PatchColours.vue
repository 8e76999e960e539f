<script setup lang="ts">
/** What each patch of a cover is cut from, where it is not what all of it is. */
import { computed } from "vue";
import { useTier } from "@/lenses/parts/tier";
import { kindAt } from "@/order/kinds";
import MediumField from "@/order/MediumField.vue";

const { tier, planned, change } = useTier();
const cover = computed(() => (tier.value?.cover.kind === "patches" ? tier.value.cover : null));
const media = computed(() => (tier.value ? (kindAt(tier.value, "cover")?.media ?? []) : []));
/** Patches as they are cut, by their numbers, with what each is cut from. */
const patches = computed(() =>
  Object.entries(planned.value?.cover?.pieces ?? {})
    .filter(([key]) => key.startsWith("patch_"))
    .map(([, piece], at) => ({
      at,
      name: piece.name,
      medium: piece.medium ?? cover.value?.medium ?? "",
      colour: piece.colour ?? null,
    })),
);

/** Without a word of its own a patch is as the cover; what it is cut from is kept whole once it is chosen. */
function set(at: number, medium: string, colour: string | null): void {
  change((tier) => {
    if (tier.cover.kind !== "patches") return;
    const found = [...tier.cover.patch_colours];
    while (found.length <= at) found.push({ medium: null, colour: null });
    const alike = medium === tier.cover.medium;
    if (alike && colour === (tier.cover.colour ?? null)) found[at] = { medium: null, colour: null };
    else found[at] = { medium: alike && colour !== null ? null : medium, colour };
    while (found.length && !found.at(-1)?.colour && !found.at(-1)?.medium) found.pop();
    tier.cover.patch_colours = found;
  });
}
</script>

<template>
  <template v-if="cover && patches.length">
    <h3>What the patches are cut from</h3>
    <div v-for="one in patches" :key="one.at" class="patch">
      <span class="name">{{ one.name }}</span>
      <MediumField
        :label="one.name"
        :medium="one.medium"
        :colour="one.colour"
        :kinds="media"
        @medium="(medium) => set(one.at, medium, one.colour)"
        @colour="(colour) => set(one.at, one.medium, colour)"
      />
    </div>
  </template>
</template>

<style scoped>
.patch {
  display: grid;
  grid-template-columns: 72px 1fr;
  align-items: center;
  gap: 0 8px;
}
</style>
