<script setup lang="ts">
/** Someone else saved first: both are kept, and one is to go on with. */
import { useOrder } from "./order";

const order = useOrder();
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
      <div class="acts">
        <button class="act main" @click="order.settle(true)">Go on with mine</button>
        <button class="act" @click="order.settle(false)">Go on with theirs</button>
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
