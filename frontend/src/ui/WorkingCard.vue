<script setup lang="ts">
/** A figure's working: the rule in words, the numbers put in, and where the rule comes from. */
import { computed, nextTick, ref, watch } from "vue";
import { spoken, writtenFormula } from "@/base/formula";
import { useHandbook } from "@/kitchen/handbook";
import { ORIGINS } from "@/kitchen/origins";
import { useSettings } from "@/kitchen/settings";
import { type Asked, asked, hideWorking } from "./working";

/** What the tiers are called that its steps are of. */
const props = defineProps<{ names: readonly string[] }>();
defineSlots<{ default?: (given: { asked: Asked }) => unknown }>();
const handbook = useHandbook();
const settings = useSettings();
const card = ref<HTMLElement>();

const rule = computed(() => asked.value && handbook.rule(asked.value.figure.rule));
const formula = computed(() => (rule.value ? writtenFormula(rule.value.formula) : ""));
const given = computed(() =>
  Object.entries(asked.value?.figure.given ?? {}).map(([name, quantity]) => ({
    name: spoken(name, props.names),
    words: settings.unrounded(quantity),
  })),
);
const source = computed(() => {
  const from = rule.value?.source;
  if (!from) return "";
  return from.reference ? `${ORIGINS[from.origin]}: ${from.reference}` : `${ORIGINS[from.origin]}.`;
});

const exact = computed(() => (asked.value ? settings.unrounded(asked.value.figure) : ""));
const read = computed(() => (asked.value ? settings.words(asked.value.figure) : ""));
const ROUNDED = { up: "rounded up", down: "rounded down", nearest: "to the nearest mark" };

watch(asked, async (now) => {
  if (!now) return;
  await nextTick();
  card.value?.focus();
});
</script>

<template>
  <ElPopover
    :visible="asked !== null"
    :virtual-ref="asked?.from"
    virtual-triggering
    placement="left"
    :width="360"
    :persistent="false"
    :popper-options="{ modifiers: [{ name: 'preventOverflow', options: { padding: 14, altAxis: true } }] }"
    role="presentation"
  >
    <div
      v-if="asked && rule"
      ref="card"
      class="working"
      tabindex="-1"
      role="dialog"
      :aria-label="`Working of ${asked.label}`"
      @keydown.esc.stop="hideWorking"
    >
      <h3>{{ asked.label }}</h3>
      <p>{{ rule.words }}</p>
      <p v-if="formula" class="formula">{{ formula }}</p>
      <dl>
        <template v-for="row in given" :key="row.name">
          <dt>{{ row.name }}</dt>
          <dd>{{ row.words }}</dd>
        </template>
        <dt class="sum">{{ asked.label }}</dt>
        <dd class="sum">{{ exact }}</dd>
        <template v-if="read !== exact">
          <dt>{{ ROUNDED[asked.figure.rounding] }}</dt>
          <dd>{{ read }}</dd>
        </template>
      </dl>
      <p class="source">{{ source }}</p>
      <slot :asked="asked" />
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
