<script setup lang="ts">
/** Every version ever saved of this order, to look back at and to go back to. */
import { answered, api } from "@/api/client";
import { useOrder } from "@/order/order";
import EarlierDialog from "@/ui/EarlierDialog.vue";
import type { Version } from "@/ui/VersionList.vue";
import { useOpened } from "@/ui/opened";

const open = useOpened().opened("versions");
const order = useOrder();

async function ask(): Promise<Version[]> {
  await order.flush();
  const params = { path: { id: order.id } };
  return answered(api.GET("/api/orders/{id}/revisions", { params }));
}

async function goBack(number: number): Promise<string> {
  const params = { path: { id: order.id, number } };
  const found = await answered(api.GET("/api/orders/{id}/revisions/{number}", { params }));
  order.edit((draft) => Object.assign(draft, found));
  return "";
}
</script>

<template>
  <EarlierDialog
    v-model="open"
    title="Versions of this order"
    :current="order.revision"
    current-words="open now"
    :ask="ask"
    :go-back="goBack"
  />
</template>
