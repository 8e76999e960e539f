<script setup lang="ts">
/** Someone else saved first: both are kept, and one is to go on with. */
import { ref } from "vue";
import { useOrder } from "@/order/order";

const order = useOrder();
const trouble = ref("");

async function settle(keepMine: boolean): Promise<void> {
  trouble.value = "";
  try {
    await order.settle(keepMine);
  } catch {
    trouble.value =
      "The kitchen's server cannot be reached just now. Both are still there; choose again in a moment.";
  }
}
</script>

<template>
  <ElDialog
    :model-value="order.stale !== null"
    title="This order was saved elsewhere meanwhile"
    width="560"
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <template v-if="order.stale">
      <p>
        What was saved elsewhere is version {{ order.stale.current }}. Yours is kept beside it as version
        {{ order.stale.aside }}, so nothing is lost whichever you go on with.
      </p>
      <p v-if="trouble" role="alert">{{ trouble }}</p>
      <div class="acts">
        <button class="act main" @click="settle(true)">Go on with mine</button>
        <button class="act" @click="settle(false)">Go on with theirs</button>
      </div>
    </template>
  </ElDialog>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 12px;
  margin-top: 18px;
}
</style>
