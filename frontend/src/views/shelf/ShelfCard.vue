<script setup lang="ts">
/** One order on the shelf: its cake to scale, what it is called, when it is due and what needs attention. */
import { computed } from "vue";
import { clockWords, hourWords } from "@/base/time";
import type { NextStep } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FractionText from "@/ui/FractionText.vue";
import type { Standing } from "./setOut";
import ShelfCake from "./ShelfCake.vue";

const props = defineProps<{ stands: Standing; archived: boolean; next?: NextStep }>();
defineEmits<{ copy: []; restore: [] }>();
const settings = useSettings();
const card = computed(() => props.stands.card);
const attention = computed(() => card.value.outside?.attention ?? []);
const troubles = computed(() => attention.value.filter((check) => check.severity === "trouble").length);
const attentionWords = computed(() => {
  const rest = attention.value.length - troubles.value;
  const parts = [];
  if (troubles.value) parts.push(troubles.value === 1 ? "1 trouble" : `${troubles.value} troubles`);
  if (rest) parts.push(rest === 1 ? "1 thing to take care of" : `${rest} things to take care of`);
  return parts.join(", ");
});
</script>

<template>
  <li :style="{ width: `${stands.cell}px` }">
    <p v-if="stands.heading" class="day">{{ stands.heading }}</p>
    <RouterLink
      :to="{ name: 'order', params: { id: card.id, lens: 'brief' } }"
      :aria-label="`Open ${card.title}`"
    >
      <ShelfCake v-if="card.outside" :outside="card.outside" :scale="stands.scale" />
      <span v-else class="unseen-cake" :class="{ soon: card.pending }" aria-hidden="true">{{
        card.pending ? "…" : "?"
      }}</span>
    </RouterLink>
    <div class="words">
      <h2>{{ card.title }}</h2>
      <p v-if="card.due">due {{ clockWords(new Date(card.due)) }}</p>
      <p v-else>no due hour yet</p>
      <p v-if="next" class="next">
        {{ next.name }}{{ next.whose ? `, ${next.whose}` : "" }}:
        <b>{{ hourWords(next.start, new Date()) }}</b>
      </p>
      <p v-if="card.outside" class="high">
        <FractionText :text="settings.words(card.outside.height)" /> high<template v-if="stands.smaller"
          >, drawn smaller than the rest</template
        >
      </p>
      <p v-if="card.unseen" class="attention" :class="{ trouble: !card.pending }">{{ card.unseen }}</p>
      <p v-if="attentionWords" class="attention" :class="{ trouble: troubles }">{{ attentionWords }}</p>
      <button v-if="archived" class="act over" @click="$emit('restore')">Put it back</button>
      <button v-else class="act bare over" :aria-label="`Copy ${card.title}`" @click="$emit('copy')">
        Copy
      </button>
    </div>
  </li>
</template>

<style scoped>
li {
  position: relative;
}

/* A card is opened wherever it is touched. */
li a::after {
  content: "";
  position: absolute;
  inset: 0;
}

.over {
  position: relative;
  z-index: 1;
}

.over.bare {
  margin-left: -12px;
  color: var(--amber);
}

.words .next {
  color: var(--ink);
}

.next b {
  white-space: nowrap;
}

.day {
  position: absolute;
  top: -26px;
  left: 0;
  font-family: var(--serif);
  font-weight: 600;
  white-space: nowrap;
}

li a {
  display: flex;
  text-decoration: none;
  align-items: end;
  justify-content: center;
  height: var(--stand);
}

li a:hover {
  background: var(--bar);
}

.unseen-cake {
  display: grid;
  place-content: center;
  width: 120px;
  height: min(100%, 120px);
  border: 2px dashed var(--trouble);
  text-decoration: none;
  color: var(--trouble);
  font-size: 34px;
}

.unseen-cake.soon {
  border-color: var(--soft);
  color: var(--soft);
}

.words {
  padding-top: 24px;
}

h2 {
  font-size: 19px;
  line-height: 1.2;
}

.words p {
  color: var(--soft);
}

.words .attention {
  margin-top: 4px;
  padding-left: 8px;
  border-left: 4px solid var(--amber-line);
  color: var(--ink);
}

.words .attention.trouble {
  border-color: var(--trouble);
}
</style>
