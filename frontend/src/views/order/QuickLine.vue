<script setup lang="ts">
/**
 * The whole cake as one line, written with signs or just said: printed, changed, and read back. What cannot be read is
 * marked and explained, with what was probably meant; below it stands the cake so far.
 */
import { computed, nextTick, ref, shallowRef, watch } from "vue";
import { answered, api } from "@/api/client";
import type { Plan } from "@/api/types";
import CakeSketch from "@/drawing/CakeSketch.vue";
import { useKit } from "@/kitchen/kit";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "@/order/order";
import { type Heard, hear, sketched } from "@/order/said";
import { useOpened } from "@/ui/opened";

const open = useOpened().opened("line");
const order = useOrder();
const settings = useSettings();
const kit = useKit();
const field = ref<HTMLTextAreaElement>();
const text = ref("");
const read = shallowRef<Heard | null>(null);
const trouble = ref("");
/** The cake as the line says it so far; the last one that could be planned. */
const sketch = shallowRef<Plan | null>(null);
const SPOKEN = "10/8/6, chocolate, lemon curd in a dam, swiss meringue, white fondant";
const CHANGE = "crust & towel";
const WAIT_MS = 180;
let timer: ReturnType<typeof setTimeout> | undefined;
let newest = 0;

watch(
  open,
  async (now) => {
    if (!now || !order.document) return;
    [text.value, read.value, trouble.value, sketch.value] = ["", null, "", null];
    try {
      const printed = await answered(
        api.POST("/api/line/print", {
          params: { query: { unit: settings.length } },
          body: order.document,
        }),
      );
      // Whoever types faster than the line arrives keeps what was typed.
      if (text.value === "") text.value = printed.text;
      await look();
    } catch {
      trouble.value = "The line cannot be printed just now. You can still type one.";
    }
    await nextTick();
    field.value?.focus();
  },
  { immediate: true },
);

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
    const { document } = order;
    const found = await hear(text.value, settings.length, document);
    if (mine !== newest) return;
    [read.value, trouble.value] = [found, ""];
    const drawn = found.design
      ? await sketched({ ...document, design: found.design }, kit.kit ?? undefined)
      : null;
    if (mine === newest && drawn) sketch.value = drawn;
  } catch {
    if (mine === newest) trouble.value = "The line cannot be read just now. It stays here; try again.";
  }
}

/** Put what was meant in the place of what was typed. */
async function mend(start: number, end: number, meant: string): Promise<void> {
  text.value = text.value.slice(0, start) + meant + text.value.slice(end);
  field.value?.focus();
  await look();
}

async function take(): Promise<void> {
  await look();
  const design = read.value?.design;
  if (!design) return;
  order.edit((draft) => (draft.design = design));
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
          <button v-if="one.meant" type="button" class="act" @click="mend(one.start, one.end, one.meant)">
            Yes, {{ one.meant }}
          </button>
        </p>
        <p v-if="!read?.unread.length && !trouble" class="soft">
          Say the cake as you would across the bench: {{ SPOKEN }}. Or change what stands here: tiers are
          parted by semicolons, bottom first; what is said of all of them follows after bars. A line without a
          size changes every tier: {{ CHANGE }}.
        </p>
      </div>
      <CakeSketch
        v-if="sketch"
        class="so-far"
        :class="{ before: !read?.design }"
        :plan="sketch"
        :width="260"
        :height="190"
        label="The cake as the line says it"
      />
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

/* Ringed as with a pencil. */
.under .unread {
  border-radius: 13px 9px 14px 8px;
  box-shadow:
    0 0 0 3px var(--panel),
    0 0 0 4.6px var(--trouble);
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

.so-far {
  justify-self: center;
}

.so-far.before {
  opacity: 0.45;
}

.wrong .act {
  margin: 3px 0 3px 8px;
  min-height: 44px;
}

.wrong {
  color: var(--trouble);
}

.acts {
  display: flex;
  gap: 10px;
}
</style>
