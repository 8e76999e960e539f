<script setup lang="ts">
/** The bowls: for each mixed colour and medium what to mix, and what becomes of it. */
import { computed } from "vue";
import type { Bowl, Figure } from "@/api/types";
import { lacking } from "@/base/units";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "@/order/order";
import FigureValue from "@/ui/FigureValue.vue";
import { showWorking } from "@/ui/working";

const order = useOrder();
const settings = useSettings();

const bowls = computed(() =>
  Object.entries(order.plan?.bowls ?? {}).map(([key, bowl]) => ({
    key,
    bowl,
    segments: segments(bowl),
    rest: roundedAway(bowl),
  })),
);

function segments(bowl: Bowl): { name: string; words: string; share: number; figure: Figure }[] {
  const parts: [string, string, Figure][] = [
    ["stays", "stays", bowl.stays],
    ["lost", "lost", bowl.lost],
    ["reserve", "reserve", bowl.reserve],
    ["back", "back", bowl.comes_back],
  ];
  return parts
    .filter(([, , figure]) => figure.value >= 0.5)
    .map(([name, words, figure]) => ({ name, words, figure, share: (100 * figure.value) / bowl.mix.value }));
}

/** What the parts as they are read lack of the mix as it is read, so that the sum on screen adds up. */
function roundedAway(bowl: Bowl): string {
  const parts = segments(bowl).map(({ figure }) => figure);
  const value = lacking(parts, bowl.mix.value, settings.weight);
  if (!value) return "";
  return `${value > 0 ? "+" : "−"} ${settings.words({ value: Math.abs(value), unit: "g" })}`;
}

function explain(bowl: Bowl, event: MouseEvent): void {
  showWorking(bowl.need, `${bowl.name}: in hand at each step`, event.currentTarget as HTMLElement);
}
</script>

<template>
  <section class="bowls" aria-label="Bowls: what to mix">
    <article
      v-for="{ key, bowl, segments: parts, rest } in bowls"
      :key="key"
      :style="{ flexGrow: Math.sqrt(bowl.mix.value) }"
      :data-bowl="key"
    >
      <h3>{{ bowl.name }}</h3>
      <div class="mix">
        <button
          class="vessel"
          :aria-label="`${bowl.name}: how the need comes about, step by step`"
          @click="explain(bowl, $event)"
        >
          <span
            v-for="part in parts"
            :key="part.name"
            class="glides"
            :class="part.name"
            :style="{
              width: `${part.share}%`,
              backgroundColor: part.name === 'stays' || part.name === 'reserve' ? bowl.hex : undefined,
            }"
          />
        </button>
        <FigureValue :figure="bowl.mix" :label="`Mix ${bowl.name}`" />
      </div>
      <p class="parts">
        <button
          v-for="part in parts"
          :key="part.name"
          :data-part="part.figure.id"
          @click="
            showWorking(part.figure, `${bowl.name}: ${part.words}`, $event.currentTarget as HTMLElement)
          "
        >
          <i
            :class="part.name"
            :style="{
              backgroundColor: part.name === 'stays' || part.name === 'reserve' ? bowl.hex : undefined,
            }"
          />{{ part.words }} <b>{{ settings.words(part.figure, part.figure.rounding) }}</b>
        </button>
        <span v-if="rest" class="rest" title="What rounding each part to the scale leaves of the whole">
          rounding <b>{{ rest }}</b>
        </span>
      </p>
    </article>
  </section>
</template>

<style scoped>
.bowls {
  display: flex;
  gap: 22px;
  height: 100%;
  padding: 10px 22px;
  position: relative;
  overflow: auto hidden;
}

article {
  flex: 1 0 222px;
  min-width: 222px;
}

.rest {
  grid-column: 1 / -1;
  display: inline-flex;
  gap: 5px;
  align-items: center;
  color: var(--soft);
}

h3 {
  overflow: hidden;
  font-family: var(--sans);
  font-weight: 500;
  font-size: 16px;
  letter-spacing: 0;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.mix {
  display: flex;
  align-items: center;
  gap: 10px;
}

.vessel {
  display: flex;
  flex: 1;
  height: 30px;
  padding: 0;
  overflow: hidden;
  border: 1.6px solid var(--ink);
  border-top: 0;
  border-radius: 0 0 15px 15px;
  background: var(--panel);
  cursor: help;
}

.vessel span + span {
  border-left: 1px solid var(--ink);
}

.lost {
  background-color: var(--lost);
}

.reserve {
  background-image: repeating-linear-gradient(45deg, transparent 0 4px, rgb(51 36 27 / 38%) 4px 6px);
}

.back {
  background-image: radial-gradient(rgb(51 36 27 / 45%) 1px, transparent 1.4px);
  background-size: 7px 7px;
}

.parts {
  display: grid;
  grid-template-columns: auto auto;
  gap: 0 12px;
  color: var(--soft);
  font-size: 15px;
  white-space: nowrap;
}

.parts button {
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

i {
  display: inline-block;
  width: 13px;
  height: 13px;
  margin-right: 6px;
  border: 1px solid var(--ink);
  vertical-align: -1px;
}

b {
  color: var(--ink);
  font-weight: 600;
}
</style>
