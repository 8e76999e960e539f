<script setup lang="ts">
/** Whether everything is saved, always in sight. Pressed, it saves now. */
import { computed } from "vue";
import { clockWords } from "@/base/time";
import { useOrder } from "@/order/order";

const order = useOrder();
const how = computed(() => {
  if (order.withTheirs) return "Theirs and yours saved";
  return order.fromElsewhere ? "Changed elsewhere" : "Saved";
});
const words = computed(() => {
  switch (order.status) {
    case "saved":
      if (!order.savedAt) return "Saved";
      return `${how.value} ${clockWords(order.savedAt)}`;
    case "editing":
      return "Save now";
    case "saving":
      return "Saving …";
    case "unreachable":
      return order.undrafted ? "No connection: leave this page open" : "No connection: kept in this browser";
    case "refused":
      return "Not saved: mend the field marked";
    case "stale":
      return "Saved elsewhere: choose";
  }
  return "";
});
</script>

<template>
  <button class="state" :class="order.status" :data-status="order.status" @click="order.save()">
    <span role="status">{{ words }}</span>
  </button>
</template>

<style scoped>
.state {
  min-width: 116px;
  min-height: 44px;
  padding: 0 10px;
  border: 1px solid transparent;
  background: none;
  text-align: right;
  cursor: pointer;
}

.state:hover {
  background: var(--tint);
}

.editing {
  border-color: var(--amber-line);
}

.unreachable,
.refused,
.stale {
  border-color: var(--trouble);
  color: var(--trouble);
  font-weight: 600;
}
</style>
