<script setup lang="ts">
/** What the dab below a tier, or the bead along its joint, is of: its own coat, or another medium. */
import { computed } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import { mediaFor, useTier } from "@/lenses/parts/tier";
import PickField from "@/ui/PickField.vue";

const props = defineProps<{
  field: "glue_medium" | "bead_medium";
  words: string;
}>();
const handbook = useHandbook();
const { tier, change } = useTier();
const choices = computed(() => [
  { value: "", words: "its own coat" },
  ...handbook.media
    .filter((medium) => mediaFor(props.field).includes(medium.kind))
    .map((medium) => ({ value: medium.key, words: medium.name })),
]);
</script>

<template>
  <PickField
    v-if="tier"
    :label="words"
    :value="tier.stand[field] ?? ''"
    :choices="choices"
    @change="(key) => change((tier) => (tier.stand[field] = key || null))"
  />
</template>
