<script setup lang="ts">
/** Put what was decided of the tier in hand across to every other tier: a button for each such thing. */
import type { Tier } from "@/api/types";
import { useTier } from "./tier";

defineProps<{ ways: readonly { words: string; copy: (from: Tier, to: Tier) => void }[] }>();
const { several, sameForAll } = useTier();
</script>

<template>
  <div v-if="several" class="same">
    <button v-for="one in ways" :key="one.words" class="act" @click="sameForAll(one.copy)">
      {{ one.words }}
    </button>
  </div>
</template>
