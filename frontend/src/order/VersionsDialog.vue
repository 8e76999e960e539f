<script setup lang="ts">
/** Every version ever saved of this order, to look back at and to go back to. */
import { ref, watch } from "vue";
import { answered, api } from "@/api/client";
import type { Revision } from "@/api/types";
import VersionList from "@/shared/VersionList.vue";
import { useOrder } from "./order";

const open = defineModel<boolean>({ required: true });
const order = useOrder();
const versions = ref<Revision[]>([]);
const trouble = ref("");

watch(open, async (now) => {
  if (!now) return;
  trouble.value = "";
  await order.flush();
  try {
    const params = { path: { id: order.id } };
    versions.value = await answered(api.GET("/api/orders/{id}/revisions", { params }));
  } catch {
    trouble.value = "The versions cannot be read just now. Close this and try again in a moment.";
  }
});

async function goBack(number: number): Promise<void> {
  try {
    const params = { path: { id: order.id, number } };
    const found = await answered(api.GET("/api/orders/{id}/revisions/{number}", { params }));
    order.edit((draft) => Object.assign(draft, found));
    open.value = false;
  } catch {
    trouble.value = "That version cannot be read just now. Nothing was changed.";
  }
}
</script>

<template>
  <ElDialog v-model="open" title="Versions of this order" width="560">
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <VersionList
      v-else
      :versions="versions"
      :current="order.revision"
      current-words="open now"
      @go-back="goBack"
    />
  </ElDialog>
</template>
