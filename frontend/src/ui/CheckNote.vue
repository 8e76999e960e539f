<script setup lang="ts">
/** Something to know: trouble, care or a caution, in this person's units. */
import type { Check } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FractionText from "./FractionText.vue";

defineProps<{ check: Check }>();
const settings = useSettings();
const HEADS: Record<Check["severity"], string> = {
  trouble: "Trouble",
  care: "Take care",
  caution: "Caution",
};
</script>

<template>
  <p class="note" :class="check.severity">
    <strong>{{ HEADS[check.severity] }}.</strong>{{ " " }}
    <FractionText :text="settings.filled(check.text, check.values ?? {})" />
  </p>
</template>

<style scoped>
.note {
  padding: 8px 12px;
  border-left: 4px solid var(--rule);
  background: var(--paper);
  font-size: 16px;
}

.trouble {
  border-color: var(--trouble);
}

.trouble strong {
  color: var(--trouble);
}

.care {
  border-color: var(--amber-line);
}

.caution {
  border-color: var(--teal);
}
</style>
