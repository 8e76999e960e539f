<script setup lang="ts">
/** The empty shelf: three cakes to begin with, drawn, and a line to say one's own in. */
import { computed, onMounted, ref, shallowRef } from "vue";
import type { Document, Plan } from "@/api/types";
import CakeSketch from "@/drawing/CakeSketch.vue";
import { useSettings } from "@/kitchen/settings";
import { hear, sketched } from "@/order/said";
import { bare } from "./starter";

const emit = defineEmits<{ begin: [design: Document["design"]] }>();
const settings = useSettings();
const base = computed(() => bare(settings.length));

const STARTERS = [
  { words: "One round tier", said: "8in, 3 layers" },
  { words: "Three tiers, curd in a dam, fondant", said: "10in, 8in, 6in, lemon curd in a dam, fondant" },
  { words: "A sheet to cut", said: "9x13in, 2 layers" },
] as const;
const ready = shallowRef<{ words: string; design: Document["design"]; plan: Plan }[]>([]);
const said = ref("");
const wrong = ref<readonly { words: string; message: string }[]>([]);

async function begin(): Promise<void> {
  const text = said.value.trim();
  if (!text) return;
  try {
    const found = await hear(text, settings.length, base.value);
    if (found.design) emit("begin", found.design);
    else
      wrong.value = found.unread.map((one) => ({
        words: text.slice(one.start, one.end).trim() || "Here",
        message: one.message,
      }));
  } catch {
    wrong.value = [{ words: "The line", message: "It cannot be read just now. It stays here; try again." }];
  }
}

onMounted(async () => {
  for (const { words, said: text } of STARTERS) {
    try {
      const { design } = await hear(text, settings.length, base.value);
      const plan = design && (await sketched({ ...base.value, design }));
      if (plan) ready.value = [...ready.value, { words, design, plan }];
    } catch {
      // Without its drawing a starter is left out; New cake and the line are there.
    }
  }
});
</script>

<template>
  <ul class="starters">
    <li v-for="one in ready" :key="one.words">
      <button @click="emit('begin', one.design)">
        <CakeSketch :plan="one.plan" :width="200" :height="190" label="" aria-hidden="true" />
        {{ one.words }}
      </button>
    </li>
  </ul>
  <form class="say" @submit.prevent="begin">
    <label for="say-cake">Or say it as you would across the bench</label>
    <div class="row">
      <input
        id="say-cake"
        v-model="said"
        type="text"
        maxlength="400"
        autocomplete="off"
        placeholder="10/8/6, chocolate, raspberry jam, white fondant"
        :aria-invalid="wrong.length > 0"
        aria-describedby="say-wrong"
        @input="wrong = []"
      />
      <button class="act main">Make this cake</button>
    </div>
    <div id="say-wrong" aria-live="polite">
      <p v-for="one in wrong" :key="one.words" class="wrong">
        <b>{{ one.words }}</b>: {{ one.message }}
      </p>
    </div>
  </form>
</template>

<style scoped>
.starters {
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
}

.starters button {
  display: grid;
  gap: 8px;
  justify-items: center;
  width: 224px;
  min-height: 240px;
  padding: 10px;
  border: 1px solid var(--edge);
  background: var(--panel);
  cursor: pointer;
}

.starters button:hover {
  border-color: var(--amber-line);
  background: var(--hover);
}

.say {
  display: grid;
  gap: 8px;
  width: 100%;
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

.say input {
  flex: 1 1 280px;
  min-height: 44px;
  padding: 0 8px;
  border: 0;
  border-bottom: 2px solid var(--amber-line);
  background: var(--panel);
  font-size: 17px;
}

.wrong {
  color: var(--trouble);
}
</style>
