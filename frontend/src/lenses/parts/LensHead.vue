<script setup lang="ts">
/**
 * The head of a lens: what is looked at, of which tier, in a few words; and, where the lens decides of each tier the same
 * things, whether what is changed is changed of this tier or of every one.
 */
import { computed, onBeforeUnmount } from "vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import { useTier } from "./tier";

const props = defineProps<{ words: string; whole?: boolean; detail: string; each?: boolean }>();
const { order, tierWords } = useTier();
const tiers = computed(() => order.plan?.tiers ?? []);
const title = computed(() =>
  props.whole || tiers.value.length < 2 ? props.words : `${props.words}, ${tierWords.value}`,
);
const WHICH = [
  { value: "one", words: "This tier" },
  { value: "every", words: "Every tier" },
] as const;
const together = computed(() =>
  order.changedTogether === 1 ? "1 tier changed." : `${order.changedTogether} tiers changed.`,
);

onBeforeUnmount(() => order.setEvery(false));
</script>

<template>
  <header>
    <div>
      <h2 tabindex="-1">{{ title }}</h2>
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
  <div v-if="each && tiers.length > 1" class="which">
    <ChoiceRow
      label="What is changed here is changed of"
      :value="order.every ? 'every' : 'one'"
      :choices="WHICH"
      @change="(value) => order.setEvery(value === 'every')"
    />
    <p v-if="order.changedTogether" role="status">
      {{ together }} <button class="act bare" @click="order.undo()">Undo</button>
    </p>
  </div>
</template>

<style scoped>
header {
  display: flex;
  align-items: start;
  justify-content: space-between;
  gap: 10px;
}

h2:focus {
  outline: none;
}

h2 {
  font-size: 24px;
  line-height: 1.15;
}

p {
  color: var(--soft);
}

p::first-letter {
  text-transform: uppercase;
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

.which {
  margin-bottom: 12px;
}

.which p {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  color: var(--ink);
}
</style>
