<script setup lang="ts">
/** The working of a figure of this order, and what it would be otherwise. */
import { useOrder } from "@/order/order";
import WorkingCard from "@/ui/WorkingCard.vue";
import WhatIf from "./WhatIf.vue";

const order = useOrder();
</script>

<template>
  <WorkingCard v-slot="{ asked: shown }" :tiers="order.plan?.tiers ?? []" :working-of="order.workingOf">
    <WhatIf :key="shown.figure.id" :figure="shown.figure" :label="shown.label" />
  </WorkingCard>
</template>
