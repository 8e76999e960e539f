<script setup lang="ts">
/** The shelves of the fridge or the drawers of the freezer, from the top: drawn to scale from the front, with sizes. */
import { computed } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import { type ColdShelf, usePlaces } from "@/kitchen/places";
import { useSettings } from "@/kitchen/settings";
import MeasureField from "@/ui/MeasureField.vue";

const props = defineProps<{ where: "fridge" | "freezer"; title: string; part: string; parts: string }>();
const WIDE = 150;
const kitchen = usePlaces();
const handbook = useHandbook();
const settings = useSettings();
const shelves = computed(() => kitchen.places?.[props.where] ?? []);
const SIZES = [
  { field: "width_mm", words: "wide" },
  { field: "depth_mm", words: "deep" },
  { field: "height_mm", words: "high" },
] as const;

/** From the front, to scale: where each shelf stands. */
const drawn = computed(() => {
  const scale = WIDE / Math.max(...shelves.value.map((one) => one.width_mm), 1);
  let y = 4;
  const found = shelves.value.map((one) => {
    const shelf = { y, width: one.width_mm * scale, height: one.height_mm * scale };
    y += shelf.height;
    return shelf;
  });
  return { found, height: y + 6 };
});

function set(index: number, field: keyof ColdShelf, value: number | null): void {
  if (value === null) return;
  void kitchen.change((kept) => {
    const shelf = kept[props.where][index];
    if (shelf) shelf[field] = value;
  });
}

/** Another is as large as the last. */
function another(): void {
  void kitchen.change((kept) => {
    const last = kept[props.where].at(-1) ?? handbook.book?.places.fridge[0];
    if (last) kept[props.where].push({ ...last });
  });
}

const words = (mm: number): string => settings.words({ value: mm, unit: "mm" });
</script>

<template>
  <section :aria-label="title">
    <h2>{{ title }}</h2>
    <p class="explain">
      {{ shelves.length ? `The ${parts} you keep free for cakes, from the top.` : `You have no ${where}.` }}
    </p>
    <div class="both">
      <svg v-if="shelves.length" :width="WIDE + 26" :height="drawn.height" aria-hidden="true">
        <rect x="1" y="1" :width="WIDE + 8" :height="drawn.height - 2" class="case" />
        <g v-for="(one, index) in drawn.found" :key="index">
          <path :d="`M5 ${one.y + one.height}h${one.width}`" class="shelf" />
          <text :x="12" :y="one.y + one.height / 2 + 6">{{ index + 1 }}</text>
        </g>
      </svg>
      <ol>
        <li v-if="shelves.length" class="heads" aria-hidden="true">
          <span />
          <span v-for="size in SIZES" :key="size.field">{{ size.words }}</span>
        </li>
        <li v-for="(shelf, index) in shelves" :key="index">
          <span class="number">{{ index + 1 }}</span>
          <MeasureField
            v-for="size in SIZES"
            :key="size.field"
            :label="`${title}, ${part} ${index + 1}, ${size.words}`"
            quiet
            limit="cold_shelf_mm"
            :value="shelf[size.field]"
            @change="(value) => set(index, size.field, value)"
          />
          <button
            class="act"
            :aria-label="`Remove ${part} ${index + 1} of the ${where}, ${words(shelf.width_mm)} wide`"
            @click="kitchen.change((kept) => void kept[where].splice(index, 1))"
          >
            ×
          </button>
          <p v-if="kitchen.wrongAt(`#/places/${where}/${index}`)" class="wrong" role="alert">
            {{ kitchen.wrongAt(`#/places/${where}/${index}`) }}
          </p>
        </li>
      </ol>
    </div>
    <button v-if="shelves.length < handbook.limit('resources').high" class="act" @click="another">
      Add a {{ part }}
    </button>
  </section>
</template>

<style scoped>
h2 {
  margin: 18px 0 2px;
  font: 600 24px/1.2 var(--serif);
}

.explain,
.heads {
  color: var(--soft);
}

.both {
  display: flex;
  gap: 18px;
  align-items: flex-start;
  margin: 8px 0;
}

ol {
  flex: 1;
  min-width: 0;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 24px repeat(3, minmax(0, 1fr)) 44px;
  gap: 8px;
  align-items: center;
}

.number {
  font: 600 18px var(--serif);
}

.heads {
  font-size: 15px;
  text-align: right;
}

.wrong {
  grid-column: 1 / -1;
  color: var(--trouble);
  font-size: 15px;
}

.case {
  fill: var(--mat);
  stroke: var(--teal);
  stroke-width: 1.5;
}

.shelf {
  stroke: var(--teal);
  stroke-width: 2.5;
}

text {
  fill: var(--teal);
  font: 600 17px var(--serif);
}

@media (max-width: 560px) {
  .both svg {
    display: none;
  }
}
</style>
