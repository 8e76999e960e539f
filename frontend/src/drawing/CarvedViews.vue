<script setup lang="ts">
/** A carved tier: the view it is carved to, and beside it the layer that is looked at, from above. */
import { computed, ref } from "vue";
import { useElementSize } from "@/base/size";
import { useCarving } from "@/order/carving";
import LayerAbove from "./LayerAbove.vue";
import ViewCorners from "./ViewCorners.vue";

const VIEW_SHARE = 0.56;
const { slice } = useCarving();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const wide = computed(() => Math.round(size.width.value * VIEW_SHARE));
</script>

<template>
  <div ref="frame" class="views">
    <template v-if="size.width.value">
      <ViewCorners :wide="wide" :high="size.height.value" />
      <LayerAbove v-if="slice" class="above" :wide="size.width.value - wide" :high="size.height.value" />
    </template>
  </div>
</template>

<style scoped>
.views {
  display: flex;
  min-height: 0;
  overflow: hidden;
  border-top: 1px solid var(--rule);
}

.above {
  border-left: 1px solid var(--rule);
}
</style>
