<script setup lang="ts">
/** A notice in the corner of the drawing while a plan is being computed, with its progress. */
import { computed } from "vue";
import { useOrder } from "@/order/order";

const order = useOrder();
const words = computed(() => {
  if (order.planUnreachable) return "";
  if (order.stopped)
    return order.plan
      ? "Stopped. These numbers are from before your last change."
      : "Stopped. There are no numbers yet.";
  if (order.stillWorking) return order.stillWorking;
  if (!order.behind) return "";
  if (!order.plan) return `${order.part?.part ?? "Working out this cake"} …`;
  return `${order.part?.part ?? "Updating"} … These numbers are from before your last change.`;
});
</script>

<template>
  <p v-if="words" class="working" role="status">
    <progress v-if="order.part" :value="order.part.share" max="1" aria-label="Progress"></progress>
    <span>{{ words }}</span>
    <button v-if="order.stopped" class="act" @click="order.replan()">Work it out</button>
    <button v-else class="act" @click="order.stopPlanning()">Stop</button>
  </p>
</template>

<style scoped>
.working progress {
  appearance: none;
  width: 120px;
  height: 10px;
  border: 1px solid var(--rule);
  background: var(--paper);
}

.working progress::-webkit-progress-bar {
  background: var(--paper);
}

.working progress::-webkit-progress-value {
  background: var(--amber-line);
  transition: width 0.3s;
}

.working progress::-moz-progress-bar {
  background: var(--amber-line);
}

/* It appears only after a moment, so that quick plans do not flicker. */
.working {
  position: absolute;
  z-index: 3;
  bottom: 8px;
  left: 12px;
  display: flex;
  gap: 12px;
  align-items: center;
  width: max-content;
  max-width: min(340px, calc(100% - 24px));
  min-height: 44px;
  margin: 0;
  padding: 4px 6px 4px 14px;
  border: 1px solid var(--rule);
  background: var(--panel);
  animation: appear 1ms 0.7s both;
}

/* Where the drawing is narrow its lower corner has the label of the base board. */
@media (max-width: 900px) {
  .working {
    top: 8px;
    bottom: auto;
  }
}

@keyframes appear {
  from {
    visibility: hidden;
  }
}
</style>
