<script setup lang="ts">
/** The numbers a kind of coat, cover or build asks for, a line each. */
import type { TierFieldName } from "@/order/fields";
import TierField from "@/order/TierField.vue";

defineProps<{ fields: readonly TierFieldName[]; figures?: Partial<Record<TierFieldName, string>> }>();
</script>

<template>
  <div v-if="fields.length" class="rows">
    <TierField v-for="field in fields" :key="field" :field="field" :figure="figures?.[field]" />
  </div>
</template>
