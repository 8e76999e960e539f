<script setup lang="ts">
/** What the dab between a tier's board and the tier below is of: its own coat, or another medium. */
import { computed } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import { useTier } from "@/lenses/parts/tier";
import PickField from "@/ui/PickField.vue";

const props = defineProps<{ kinds: readonly string[] }>();
const handbook = useHandbook();
const { tier, change } = useTier();
const choices = computed(() => [
  { value: "", words: "its own coat" },
  ...handbook.media
    .filter((medium) => props.kinds.includes(medium.kind))
    .map((medium) => ({ value: medium.key, words: medium.name })),
]);
</script>

<template>
  <PickField
    v-if="tier"
    label="Glued to the tier below with"
    :value="tier.stand.glue_medium ?? ''"
    :choices="choices"
    @change="(key) => change((tier) => (tier.stand.glue_medium = key || null))"
  />
</template>
