<script setup lang="ts">
/** The whole cake as one line: printed, changed, and read back; what cannot be read is underlined and explained. */
import { computed, nextTick, ref, shallowRef, watch } from "vue";
import { answered, api, type Schemas } from "@/api/client";
import type { Document } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "@/order/order";

type Read = Schemas["LineRead"];

const open = defineModel<boolean>({ required: true });
const order = useOrder();
const settings = useSettings();
const field = ref<HTMLTextAreaElement>();
const text = ref("");
const read = shallowRef<Read | null>(null);
const trouble = ref("");
const EXAMPLE = "10in x 5in round; 8 x 5; 6 x 4 | fill lemon curd dam | coat meringue 6mm | fondant 3mm";
const WAIT_MS = 180;
let timer: ReturnType<typeof setTimeout> | undefined;
let newest = 0;

watch(open, async (now) => {
  if (!now || !order.document) return;
  [text.value, read.value, trouble.value] = ["", null, ""];
  try {
    const printed = await answered(api.POST("/api/line/print", { body: order.document }));
    // Whoever types faster than the line arrives keeps what was typed.
    if (text.value === "") text.value = printed.text;
    await look();
  } catch {
    trouble.value = "The line cannot be printed just now. You can still type one.";
  }
  await nextTick();
  field.value?.focus();
});

function typed(): void {
  clearTimeout(timer);
  timer = setTimeout(() => void look(), WAIT_MS);
}

/** Read the line as it stands; only the newest answer counts. */
async function look(): Promise<void> {
  if (!order.document) return;
  clearTimeout(timer);
  newest += 1;
  const mine = newest;
  try {
    const body = { text: text.value, unit: settings.length, document: order.document };
    const found = await answered(api.POST("/api/line/read", { body }));
    if (mine === newest) [read.value, trouble.value] = [found as Read, ""];
  } catch {
    if (mine === newest) trouble.value = "The line cannot be read just now. It stays here; try again.";
  }
}

async function take(): Promise<void> {
  await look();
  const design = read.value?.design;
  if (!design) return;
  order.edit((draft) => (draft.design = design as Document["design"]));
  open.value = false;
}

/** The line cut into stretches that were read and stretches that were not. */
const stretches = computed(() => {
  const found: { words: string; unread: boolean }[] = [];
  let at = 0;
  for (const one of read.value?.unread ?? []) {
    if (one.start < at) continue;
    found.push({ words: text.value.slice(at, one.start), unread: false });
    found.push({ words: text.value.slice(one.start, one.end) || " ", unread: true });
    at = one.end;
  }
  found.push({ words: text.value.slice(at), unread: false });
  return found;
});
</script>

<template>
  <ElDialog v-model="open" title="The cake in one line" width="860" top="9vh">
    <form class="line" @submit.prevent="take">
      <div class="paper">
        <div class="under" aria-hidden="true">
          <span v-for="(one, index) in stretches" :key="index" :class="{ unread: one.unread }">{{
            one.words
          }}</span>
        </div>
        <textarea
          ref="field"
          v-model="text"
          rows="5"
          spellcheck="false"
          aria-label="The cake in one line"
          :aria-invalid="(read?.unread.length ?? 0) > 0"
          aria-describedby="line-says"
          @input="typed"
          @keydown.enter.prevent="take"
        />
      </div>
      <div id="line-says" aria-live="polite">
        <p v-if="trouble" class="wrong">{{ trouble }}</p>
        <p v-for="one in read?.unread" :key="`${one.start}-${one.end}`" class="wrong">
          <b>{{ text.slice(one.start, one.end).trim() || "Here" }}</b>: {{ one.message }}
        </p>
        <p v-if="!read?.unread.length && !trouble" class="soft">
          Tiers are parted by semicolons, bottom first; clauses for all of them follow after bars, clauses for
          one after commas. For example: {{ EXAMPLE }}
        </p>
      </div>
      <div class="acts">
        <button class="act main" :disabled="!read?.design">Make this cake</button>
        <button type="button" class="act" @click="open = false">Leave it as it is</button>
      </div>
    </form>
  </ElDialog>
</template>

<style scoped>
.line {
  display: grid;
  gap: 14px;
}

.paper {
  position: relative;
  background: var(--panel);
}

.under,
textarea {
  box-sizing: border-box;
  width: 100%;
  min-height: 150px;
  margin: 0;
  padding: 12px 14px;
  border: 1px solid var(--rule);
  font: 18px/1.6 var(--sans);
  letter-spacing: 0;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}

.under {
  color: transparent;
}

.under .unread {
  text-decoration: underline wavy var(--trouble) 2px;
  text-underline-offset: 4px;
}

textarea {
  position: absolute;
  inset: 0;
  height: 100%;
  border-color: var(--amber-line);
  resize: none;
  background: none;
  color: var(--ink);
}

.wrong {
  color: var(--trouble);
}

.acts {
  display: flex;
  gap: 10px;
}
</style>
