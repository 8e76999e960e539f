<script setup lang="ts">
/** The bowls in one line: what to mix of each. Opened, what becomes of it. */
import { computed, ref, watch } from "vue";
import type { Bowl, Figure } from "@/api/types";
import { keep, recall } from "@/base/browser";
import { useElementSize } from "@/base/size";
import { lacking } from "@/base/units";
import { useSettings } from "@/kitchen/settings";
import BowlGlyph from "@/drawing/BowlGlyph.vue";
import { useOrder } from "@/order/order";
import { useDesk } from "@/ui/desk";
import FigureValue from "@/ui/FigureValue.vue";
import { showWorking } from "@/ui/working";

const OPEN_KEY = "amber:bowls-open";
/** A bowl in the line takes so much room. */
const ROOM = 214;

const order = useOrder();
const desk = useDesk();
const settings = useSettings();
const line = ref<HTMLElement>();
const size = useElementSize(line);
const open = ref(recall(OPEN_KEY) === "yes");
watch(open, (now) => keep(OPEN_KEY, now ? "yes" : "no"));

const bowls = computed(() =>
  Object.entries(order.plan?.bowls ?? {}).map(([key, bowl]) => ({
    key,
    bowl,
    parts: partsOf(bowl),
    rest: roundedAway(bowl),
  })),
);
/** As many as there is room for; opened, all of them. */
const fits = computed(() => Math.max(1, Math.floor(size.width.value / ROOM)));
const shown = computed(() => (open.value ? bowls.value : bowls.value.slice(0, fits.value)));
const more = computed(() => bowls.value.length - shown.value.length);

function partsOf(bowl: Bowl): { name: string; words: string; share: number; figure: Figure }[] {
  const parts: [string, string, Figure][] = [
    ["stays", "stays", bowl.stays],
    ["lost", "lost", bowl.lost],
    ["reserve", "reserve", bowl.reserve],
    ["back", "back", bowl.comes_back],
  ];
  return parts
    .filter(([, , figure]) => figure.value >= 0.5)
    .map(([name, words, figure]) => ({ name, words, figure, share: figure.value / bowl.mix.value }));
}

/** What the parts as they are read lack of the mix as it is read, so that the sum on screen adds up. */
function roundedAway(bowl: Bowl): string {
  const parts = partsOf(bowl).map(({ figure }) => figure);
  const value = lacking(parts, bowl.mix.value, settings.weight);
  if (!value) return "";
  return `${value > 0 ? "+" : "−"} ${settings.words({ value: Math.abs(value), unit: "g" })}`;
}

function explain(bowl: Bowl, event: MouseEvent): void {
  showWorking(bowl.need, `${bowl.name}: in hand at each step`, event.currentTarget as HTMLElement);
}
</script>

<template>
  <section ref="line" class="bowls" :class="{ open }" aria-label="Bowls: what to mix">
    <article v-for="{ key, bowl, parts, rest } in shown" :key="key" :data-bowl="key">
      <div class="mix">
        <button
          class="vessel"
          :aria-label="`${bowl.name}: how the need comes about, step by step`"
          @click="explain(bowl, $event)"
        >
          <BowlGlyph
            :id="key"
            :hex="bowl.hex"
            :parts="parts.map((part) => ({ ...part, lit: desk.lit === part.figure.id }))"
            :width="open ? 92 : 54"
          />
        </button>
        <div class="says">
          <h3 :title="bowl.name">
            <span>{{ bowl.name.split(", ")[0] }}</span><b v-if="bowl.name.includes(', ')"
              >, {{ bowl.name.split(", ").slice(1).join(", ") }}</b
            >
          </h3>
          <FigureValue :figure="bowl.mix" :label="`Mix ${bowl.name}`" />
        </div>
      </div>
      <p v-if="open" class="parts">
        <button
          v-for="part in parts.toReversed()"
          :key="part.name"
          :data-part="part.figure.id"
          @click="
            showWorking(part.figure, `${bowl.name}: ${part.words}`, $event.currentTarget as HTMLElement)
          "
          v-on="desk.lights(part.figure.id)"
        >
          {{ part.words }} <b>{{ settings.words(part.figure) }}</b>
        </button>
        <span v-if="rest" class="rest" title="What rounding each part to the scale leaves of the whole">
          rounding <b>{{ rest }}</b>
        </span>
      </p>
    </article>
    <button v-if="bowls.length" class="act all" :aria-expanded="open" @click="open = !open">
      {{ open ? "Fold the bowls" : more > 0 ? `${more} more, open` : "Open bowls" }}
    </button>
  </section>
</template>

<style scoped>
.bowls {
  position: relative;
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 56px;
  padding: 0 140px 0 16px;
}

.bowls.open {
  flex-wrap: wrap;
  gap: 12px 18px;
  align-items: flex-start;
  max-height: 40vh;
  padding-block: 10px;
  overflow-y: auto;
}

article {
  flex: 1 1 206px;
  min-width: 0;
  max-width: 260px;
}

.open article {
  flex: 0 0 246px;
}

.mix {
  display: flex;
  gap: 9px;
  align-items: center;
}

.vessel {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  cursor: help;
}

.says {
  flex: 1;
  min-width: 0;
  line-height: 1.1;
}

.says :deep(.figure) {
  min-height: 24px;
  padding: 0;
}

/* Of a long name both the medium and the colour stay, each as far as there is room. */
h3 {
  display: grid;
  grid-template-columns: minmax(0, auto);
  font-family: var(--sans);
  font-weight: 500;
  font-size: 16px;
  letter-spacing: 0;
  white-space: pre;
}

h3:has(b) {
  grid-template-columns: fit-content(58%) minmax(0, 1fr);
}

h3 > * {
  overflow: hidden;
  font-weight: 500;
  text-overflow: ellipsis;
}

.parts {
  display: grid;
  grid-template-columns: auto auto;
  gap: 0 12px;
  color: var(--soft);
  font-size: 16px;
  white-space: nowrap;
}

.parts button {
  min-height: 32px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  cursor: help;
}

.parts button:hover b {
  text-decoration: underline dotted var(--soft) 2px;
  text-underline-offset: 3px;
}

.rest {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  color: var(--soft);
}

.all {
  position: absolute;
  top: 6px;
  right: 12px;
  min-height: 44px;
}

b {
  color: var(--ink);
  font-weight: 600;
}

@media (width < 900px) {
  .bowls,
  .bowls.open {
    flex-direction: column;
    align-items: stretch;
    max-height: none;
    padding: 56px 16px 16px;
  }

  .bowls article,
  .bowls.open article {
    flex: none;
    max-width: none;
  }
}
</style>
