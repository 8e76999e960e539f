<script setup lang="ts">
/** Every version ever saved of this order, to look back at and to go back to. */
import { ref, watch } from "vue";
import { answered, api } from "@/api/client";
import type { Revision } from "@/api/types";
import { stampWords } from "@/shared/time";
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
    <ul v-else>
      <li v-for="version in versions" :key="version.number">
        <span>
          <b>{{ version.number }}</b> {{ version.title }}
          <span class="unit"
            >{{ stampWords(new Date(version.saved_at)) }}{{ version.aside ? ", kept aside" : "" }}</span
          >
        </span>
        <span v-if="version.number === order.revision" class="unit">open now</span>
        <button v-else class="act" @click="goBack(version.number)">Go back to it</button>
      </li>
    </ul>
  </ElDialog>
</template>

<style scoped>
ul {
  max-height: 50vh;
  margin: 0;
  padding: 0;
  position: relative;
  overflow: auto;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 48px;
  border-bottom: 1px solid var(--rule);
}

b {
  display: inline-block;
  min-width: 2.4ch;
  font-family: var(--serif);
}
</style>
