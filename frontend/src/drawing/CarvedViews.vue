<script setup lang="ts">
/** A carved tier: the view it is carved to, and beside it the layer that is looked at, from above. */
import { type Component, computed, ref } from "vue";
import { useElementSize } from "@/base/size";
import { useCarving } from "@/order/carving";
import InTheRound from "./InTheRound.vue";
import LayerAbove from "./LayerAbove.vue";
import SolidsSeen from "./SolidsSeen.vue";
import ViewCorners from "./ViewCorners.vue";

const VIEW_SHARE = 0.56;
/** So narrow, there is no room for a button beside what is written over a drawing. */
const NARROW = 340;
const { build, carving, slice, inRound } = useCarving();
/** What the body is given by is drawn flat; one out of a file is seen in the round alone. */
const flat = computed<Component | null>(() => {
  if (build.value) return ViewCorners as Component;
  return carving.value?.solids.length ? (SolidsSeen as Component) : null;
});
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const wide = computed(() => Math.round(size.width.value * VIEW_SHARE));
</script>

<template>
  <div ref="frame" class="views">
    <template v-if="size.width.value">
      <div class="given" :class="{ narrow: wide < NARROW }">
        <InTheRound v-if="!flat || inRound" :wide="wide" :high="size.height.value" />
        <component :is="flat" v-else :wide="wide" :high="size.height.value" />
        <button v-if="flat" class="act" :aria-pressed="inRound" @click="inRound = !inRound">
          {{ inRound ? "Flat" : "In the round" }}
        </button>
      </div>
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

.given {
  position: relative;
}

.given .act {
  position: absolute;
  top: 6px;
  right: 12px;
  padding: 0 14px;
  background: var(--panel);
}

.given.narrow .act {
  top: auto;
  bottom: 6px;
}

.given :deep(.closeness) {
  top: 6px;
  right: 136px;
  bottom: auto;
}

.given.narrow :deep(.closeness) {
  right: 8px;
}

.above {
  border-left: 1px solid var(--rule);
}
</style>
