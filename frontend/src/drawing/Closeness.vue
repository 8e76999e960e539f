<script setup lang="ts">
/** Buttons in a corner of a drawing: look closer, farther, or at all of it. */
import { STEP } from "./view";

defineProps<{ closer: boolean }>();
const emit = defineEmits<{ go: [times: number]; fit: [] }>();
</script>

<template>
  <div class="closeness" role="group" aria-label="Look closer">
    <button class="act" aria-label="Closer" title="Closer (+)" @click="emit('go', STEP)">+</button>
    <button v-if="closer" class="act" aria-label="Farther" title="Farther (-)" @click="emit('go', 1 / STEP)">
      −
    </button>
    <button v-if="closer" class="act" title="All of it (0)" @click="emit('fit')">All of it</button>
  </div>
</template>

<style scoped>
.closeness {
  position: absolute;
  right: 8px;
  bottom: 8px;
  display: flex;
  gap: 4px;
}

.act {
  min-width: 44px;
  min-height: 44px;
  background: rgb(255 253 247 / 86%);
  font-size: 19px;
}
</style>
