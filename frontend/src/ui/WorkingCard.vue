<script setup lang="ts">
/** A figure's working: the rule in words, the numbers put in, and where the rule comes from. */
import { computed, nextTick, ref, shallowRef, watch } from "vue";
import { wordsOf } from "@/api/client";
import type { Figure } from "@/api/types";
import { type CalledTier, spoken, writtenFormula } from "@/base/formula";
import { useHandbook } from "@/kitchen/handbook";
import { ORIGINS } from "@/kitchen/origins";
import { useSettings } from "@/kitchen/settings";
import { type Asked, asked, hideWorking } from "./working";

const props = defineProps<{
  /** The tiers that its steps are of. */
  tiers: readonly CalledTier[];
  /** Fetches a figure that came without its working. */
  workingOf?: (id: string) => Promise<Figure>;
}>();
defineSlots<{ default?: (given: { asked: Asked }) => unknown }>();
const handbook = useHandbook();
const settings = useSettings();
const card = ref<HTMLElement>();
/** The card opens when its numbers are here, or after this long without them. */
const PATIENCE_MS = 300;
const shown = shallowRef<Asked | null>(null);
const numbers = shallowRef<Figure["given"]>(null);
const trouble = ref("");

const rule = computed(() => shown.value && handbook.rule(shown.value.figure.rule));
const formula = computed(() => (rule.value ? writtenFormula(rule.value.formula) : ""));
const given = computed(() =>
  Object.entries(numbers.value ?? {}).map(([name, quantity]) => ({
    name: spoken(name, props.tiers),
    words: settings.unrounded(quantity),
  })),
);
const source = computed(() => {
  const from = rule.value?.source;
  if (!from) return "";
  return from.reference ? `${ORIGINS[from.origin]}: ${from.reference}` : `${ORIGINS[from.origin]}.`;
});

const exact = computed(() => (shown.value ? settings.unrounded(shown.value.figure) : ""));
const read = computed(() => (shown.value ? settings.words(shown.value.figure) : ""));
const ROUNDED = { up: "rounded up", down: "rounded down", nearest: "to the nearest mark" };

async function open(one: Asked): Promise<void> {
  shown.value = one;
  await nextTick();
  card.value?.focus();
}

watch(
  asked,
  async (now) => {
    shown.value = null;
    trouble.value = "";
    numbers.value = now?.figure.given ?? null;
    if (!now) return;
    if (!numbers.value && props.workingOf) {
      const late = setTimeout(() => void open(now), PATIENCE_MS);
      const found = await props.workingOf(now.figure.id).catch((error: unknown) => {
        if (asked.value === now) trouble.value = wordsOf(error, "The kitchen's server cannot be reached.");
      });
      clearTimeout(late);
      if (asked.value !== now) return;
      numbers.value = found?.given ?? null;
    }
    if (!shown.value) await open(now);
  },
  { immediate: true },
);
</script>

<template>
  <ElPopover
    :visible="shown !== null"
    :virtual-ref="shown?.from"
    virtual-triggering
    placement="left"
    :width="360"
    :persistent="false"
    :popper-options="{ modifiers: [{ name: 'preventOverflow', options: { padding: 14, altAxis: true } }] }"
    role="presentation"
  >
    <div
      v-if="shown && rule"
      ref="card"
      class="working"
      tabindex="-1"
      role="dialog"
      :aria-label="`Working of ${shown.label}`"
      @keydown.esc.stop="hideWorking"
    >
      <h3>{{ shown.label }}</h3>
      <p>{{ rule.words }}</p>
      <p v-if="formula" class="formula">{{ formula }}</p>
      <p v-if="trouble" class="source" role="alert">The numbers put in cannot be shown. {{ trouble }}</p>
      <p v-else-if="!numbers" class="source" role="status">Fetching the numbers …</p>
      <dl>
        <template v-for="row in given" :key="row.name">
          <dt>{{ row.name }}</dt>
          <dd>{{ row.words }}</dd>
        </template>
        <dt class="sum">{{ shown.label }}</dt>
        <dd class="sum">{{ exact }}</dd>
        <template v-if="read !== exact">
          <dt>{{ ROUNDED[shown.figure.rounding] }}</dt>
          <dd>{{ read }}</dd>
        </template>
      </dl>
      <p class="source">{{ source }}</p>
      <slot :asked="shown" />
      <button class="act" @click="hideWorking">Close</button>
    </div>
  </ElPopover>
</template>

<style scoped>
.working {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  max-height: 84vh;
  padding: 8px 6px;
  position: relative;
  overflow: auto;
  color: var(--ink);
  font-size: 16px;
  text-align: left;
  word-break: normal;
}

.working:focus-visible {
  outline: none;
}

h3 {
  font-size: 20px;
}

.formula {
  padding: 8px 10px;
  background: var(--paper);
  font-family: var(--serif);
}

dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 16px;
  margin: 0;
}

dd {
  margin: 0;
  font-family: var(--serif);
  font-weight: 600;
  text-align: right;
  white-space: nowrap;
}

.sum {
  padding-top: 6px;
  border-top: 1px solid var(--ink);
}

.source {
  color: var(--soft);
  font-size: 15px;
}

button {
  justify-self: start;
}
</style>
