<script setup lang="ts">
/** The lenses in the order of the work, each with a mark where something needs attention in it. */
import { computed } from "vue";
import type { Check } from "@/api/types";
import { LENS_KEYS, LENSES } from "@/lenses";
import { useOrder } from "@/order/order";

defineProps<{ current: string }>();
const emit = defineEmits<{ look: [lens: string] }>();
const order = useOrder();
const attention = computed(() => {
  const found = new Map<Check["subject"], Check["severity"]>();
  for (const check of order.plan?.checks ?? []) {
    if (check.severity === "caution") continue;
    if (check.severity === "trouble" || !found.has(check.subject)) found.set(check.subject, check.severity);
  }
  return found;
});
</script>

<template>
  <nav class="spine" aria-label="Lenses">
    <button
      v-for="(one, index) in LENSES"
      :key="one.name"
      :class="{ chosen: one.name === current, doing: one.doing }"
      :aria-current="one.name === current ? 'page' : undefined"
      @click="emit('look', one.name)"
    >
      <span class="key">{{ LENS_KEYS[index] }}</span>
      <span>{{ one.words }}</span>
      <span v-if="one.subject && attention.has(one.subject)" class="mark" :class="attention.get(one.subject)">
        <span class="unseen">needs attention</span>
      </span>
    </button>
  </nav>
</template>

<style scoped>
.spine {
  grid-area: spine;
  padding-top: 16px;
  border-right: 1px solid var(--rule);
}

/* A rule parts the lenses that plan from those for the work itself. */
.spine button:not(.doing) + .doing {
  margin-top: 19px;
}

.spine button:not(.doing) + .doing::before {
  content: "";
  position: absolute;
  top: -10px;
  right: 14px;
  left: 16px;
  border-top: 1px solid var(--edge);
}

.spine button {
  position: relative;
  display: flex;
  align-items: center;
  gap: 9px;
  width: 100%;
  min-height: 46px;
  padding: 0 8px 0 16px;
  border: 0;
  border-left: 4px solid transparent;
  background: none;
  font-size: 17px;
  text-align: left;
  cursor: pointer;
}

.spine button:focus-visible {
  outline-offset: -4px;
}

.spine button:hover {
  background: var(--bar);
}

.spine .chosen {
  border-color: var(--amber-line);
  background: var(--tint);
  font-family: var(--serif);
  font-weight: 600;
}

.key {
  color: var(--soft);
  font: 14px var(--sans);
}

.mark {
  flex: none;
  width: 9px;
  height: 9px;
  margin-left: auto;
  border: 2px solid var(--amber-line);
}

.mark.trouble {
  border-color: var(--trouble);
  background: var(--trouble);
}

@media print {
  .spine {
    display: none;
  }
}

@media (width < 1180px) {
  .spine button {
    padding-left: 10px;
  }
}

/* A row, which stays in sight while the page scrolls. */
@media (width < 900px) {
  .spine {
    position: sticky;
    top: 0;
    z-index: 4;
    display: flex;
    padding: 0;
    overflow-x: auto;
    border-right: 0;
    border-bottom: 1px solid var(--rule);
    background: var(--paper);
  }

  .spine button:not(.doing) + .doing {
    margin: 0;
  }

  .spine button:not(.doing) + .doing::before {
    content: none;
  }

  .spine button {
    flex: 1 0 auto;
    gap: 6px;
    width: auto;
    min-height: 48px;
    padding: 0 12px;
    border-bottom: 4px solid transparent;
    border-left: 0;
  }

  .spine .key {
    display: none;
  }

  /* It takes no room: a lens would slide from under the finger as the plan arrives. */
  .spine .mark {
    position: absolute;
    top: 7px;
    right: 3px;
  }
}
</style>
