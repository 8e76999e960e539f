<script setup lang="ts">
/** Edits that this browser kept and this version cannot read: they are said, and can be taken away as a file. */
import { computed } from "vue";
import { useOrder } from "@/order/order";

const order = useOrder();
const href = computed(() =>
  order.stray
    ? `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(order.stray.document, null, 2))}`
    : "",
);
</script>

<template>
  <p v-if="order.stray" class="banner" role="alert">
    This browser kept edits of this order that this version cannot read. {{ order.stray.words }}
    <a class="act" :href="href" download="kept edits.amber.json">Save them as a file</a>
    <button class="act" @click="order.dropStray()">Throw them away</button>
  </p>
</template>
