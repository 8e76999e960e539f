<script setup lang="ts">
/** The keys that work in an order. */
import { useSettings } from "@/kitchen/settings";
import { LENS_KEYS, LENSES } from "@/lenses";
import { useOpened } from "@/ui/opened";

const open = useOpened().opened("keys");
const settings = useSettings();
const ownKeys = LENS_KEYS.slice(0, LENSES.length);
const KEYS: readonly [string, string][] = [
  [ownKeys.join(" "), LENSES.map((lens) => lens.words).join(", ")],
  ["↑ ↓", "the tier above, the tier below"],
  ["/", "the whole cake in one line, to read and to type"],
  ["Ctrl Z", "undo, also past earlier visits"],
  ["Ctrl Shift Z", "redo"],
  ["Ctrl S", "save now (edits are saved by themselves too)"],
  ["Ctrl P", "the plate, one page to print"],
  ["+ - 0", "in the drawing: closer, farther, all of it"],
  ["Enter", "take what was typed"],
  ["Esc", "leave a field as it was, or close what is open"],
  ["?", "the words of the trade, each with a drawing"],
];
</script>

<template>
  <ElDialog v-model="open" title="Keys" width="520">
    <dl>
      <template v-for="[key, words] in KEYS" :key="key">
        <dt>{{ key }}</dt>
        <dd>{{ words }}</dd>
      </template>
    </dl>
    <label class="single"
      ><input v-model="settings.singleKeys" type="checkbox" /> Keys without Ctrl work ({{ ownKeys[0] }} to
      {{ ownKeys.at(-1) }}, arrows, / and ?)</label
    >
  </ElDialog>
</template>

<style scoped>
.single {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
  margin-top: 14px;
}

.single input {
  width: 22px;
  height: 22px;
  accent-color: var(--amber);
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 10px 22px;
  margin: 0;
}

dt {
  font-family: var(--serif);
  font-weight: 600;
  white-space: nowrap;
}

dd {
  margin: 0;
}
</style>
