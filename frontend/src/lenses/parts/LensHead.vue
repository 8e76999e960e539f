<script setup lang="ts">
/** The head of a lens: what is looked at, of which tier, in a few words. */
import { computed } from "vue";
import { useTier } from "./tier";

const props = defineProps<{ words: string; whole?: boolean; detail: string }>();
const { order, tierWords } = useTier();
const tiers = computed(() => order.plan?.tiers ?? []);
const title = computed(() =>
  props.whole || tiers.value.length < 2 ? props.words : `${props.words}, ${tierWords.value}`,
);
</script>

<template>
  <header>
    <div>
      <h2>{{ title }}</h2>
      <p>{{ detail }}</p>
    </div>
    <div v-if="!whole && tiers.length > 1" class="steps">
      <button
        class="act"
        aria-label="The tier above"
        :disabled="order.tier === tiers.length - 1"
        @click="order.step(1)"
      >
        ↑
      </button>
      <button class="act" aria-label="The tier below" :disabled="order.tier === 0" @click="order.step(-1)">
        ↓
      </button>
    </div>
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: start;
  justify-content: space-between;
  gap: 10px;
}

h2 {
  font-size: 24px;
  line-height: 1.15;
}

p {
  color: var(--soft);
}

.steps {
  display: flex;
}

.steps .act {
  width: 40px;
  padding: 0;
}

.steps .act + .act {
  border-left: 0;
}
</style>
