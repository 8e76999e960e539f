<script setup lang="ts">
/** A recipe, changed where it stands: what it makes, what goes in, what it weighs in the end, and how it is made. */
import { computed } from "vue";
import type { Recipe, RecipeLine } from "@/api/types";
import { parseAmount } from "@/base/amount";
import { parseWeight, UnitError } from "@/base/units";
import { useHandbook } from "@/kitchen/handbook";
import { usePantry } from "@/kitchen/pantry";
import { useSettings } from "@/kitchen/settings";
import PlainField from "./PlainField.vue";

const recipe = defineModel<Recipe>({ required: true });
const pantry = usePantry();
const handbook = useHandbook();
const settings = useSettings();
const items = computed(() => [...pantry.names].sort((a, b) => a[1].localeCompare(b[1])));
const media = computed(() => [...(pantry.larder?.media ?? [])].sort((a, b) => a.name.localeCompare(b.name)));
/** What comes in pieces that are not halved, such as eggs. */
const pieces = computed(
  () => new Set((pantry.larder?.ingredients ?? []).filter((one) => one.each_g).map((one) => one.key)),
);

function amountWords(line: RecipeLine): string {
  if (line.unit === "each") return `${line.amount} ${line.amount === 1 ? "piece" : "pieces"}`;
  return line.unit === "ml" ? `${line.amount} ml` : `${line.amount} g`;
}

/** Take what was typed; the sentence that says what would be accepted, or nothing. */
function attempt(take: () => void): string {
  try {
    take();
    return "";
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    return error.message;
  }
}

/** A number within a limit, or a sentence that names its ends, after `words`. */
function within(value: number, limit: string, words: string): number {
  const { low, high } = handbook.limit(limit);
  const end = (value: number): string => settings.words({ value, unit: "g" });
  if (!(value >= low && value <= high)) throw new UnitError(`${words} ${end(low)} to ${end(high)}.`);
  return value;
}

function setName(text: string): string {
  return attempt(() => {
    if (!text.trim() || text.trim().length > 80) throw new UnitError("Type a name of 1 to 80 characters.");
    recipe.value.name = text.trim();
  });
}

function setAmount(index: number, text: string): string {
  return attempt(() => {
    const { amount, unit } = parseAmount(text, settings.weight, false);
    Object.assign(recipe.value.lines[index] ?? {}, { amount, unit });
  });
}

function setYield(text: string): string {
  return attempt(() => {
    const grams = text.trim() ? parseWeight(text, settings.weight) : null;
    recipe.value.yield_g =
      grams === null ? null : within(grams, "yield_g", "Leave it empty for the sum of what goes in, or type");
  });
}

function setBatter(text: string): string {
  return attempt(() => {
    const { low, high } = handbook.limit("density_g_per_ml");
    const value = Number(text.trim().replace(",", "."));
    if (!(value >= low && value <= high))
      throw new UnitError(`Type what 1 ml of batter weighs in g, ${low} to ${high}.`);
    recipe.value.batter_g_per_ml = value;
  });
}

function setStep(index: number, event: Event): void {
  recipe.value.steps[index] = (event.target as HTMLTextAreaElement).value.replace(/\s+/g, " ").trim();
}
</script>

<template>
  <article :aria-label="recipe.name">
    <PlainField class="title" label="Name" :value="recipe.name" wide :take="setName" />
    <label v-if="!recipe.cake" class="line">
      <span>Makes</span>
      <select v-model="recipe.makes">
        <option v-for="one in media" :key="one.key" :value="one.key">{{ one.name }}</option>
      </select>
    </label>
    <div v-else class="line">
      <span>1 ml of batter weighs, g</span>
      <PlainField
        label="1 ml of batter weighs, g"
        :value="String(recipe.batter_g_per_ml ?? '')"
        :take="setBatter"
      />
    </div>
    <h3>Goes in</h3>
    <table>
      <tbody>
        <tr v-for="(line, index) in recipe.lines" :key="index">
          <td>
            <select v-model="line.item" :aria-label="`Ingredient ${index + 1}`">
              <option v-for="[item, name] in items" :key="item" :value="item">{{ name }}</option>
            </select>
          </td>
          <td>
            <PlainField
              :label="`Ingredient ${index + 1}: amount`"
              :value="amountWords(line)"
              :take="(text) => setAmount(index, text)"
            />
          </td>
          <td>
            <label v-if="pieces.has(line.item)" class="whole"
              ><input v-model="line.whole" type="checkbox" /> only whole</label
            >
          </td>
          <td>
            <button
              class="act"
              :aria-label="`Take out ingredient ${index + 1}`"
              :disabled="recipe.lines.length === 1"
              @click="recipe.lines.splice(index, 1)"
            >
              ×
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <button class="act" @click="recipe.lines.push({ item: 'sugar', amount: 100, unit: 'g', whole: false })">
      Another ingredient
    </button>
    <div class="line">
      <span>Weighs in the end</span>
      <PlainField
        label="Weighs in the end"
        :value="recipe.yield_g == null ? '' : settings.words({ value: recipe.yield_g, unit: 'g' })"
        placeholder="what goes in"
        :take="setYield"
      />
    </div>
    <label class="line"
      ><span>Only in quarters of the recipe</span><input v-model="recipe.by_quarters" type="checkbox"
    /></label>
    <h3>Steps</h3>
    <ol>
      <li v-for="(step, index) in recipe.steps" :key="index">
        <textarea
          :value="step"
          rows="2"
          maxlength="400"
          :aria-label="`Step ${index + 1}`"
          @change="setStep(index, $event)"
        />
        <button class="act" :aria-label="`Take out step ${index + 1}`" @click="recipe.steps.splice(index, 1)">
          ×
        </button>
      </li>
    </ol>
    <button class="act" @click="recipe.steps.push('')">Another step</button>
  </article>
</template>

<style scoped src="./book.css"></style>
<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

td {
  padding: 2px 8px 2px 0;
  border-bottom: 1px solid var(--rule);
}

td:first-child select {
  width: 100%;
}

td:last-child {
  width: 48px;
  padding-right: 0;
}

td .act,
li .act {
  width: 40px;
  padding: 0;
}

.whole {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 40px;
  color: var(--soft);
  white-space: nowrap;
}

article > .act {
  margin: 8px 0;
}

ol {
  margin: 0;
  padding-left: 22px;
}

ol li {
  padding: 4px 0;
}

ol li::marker {
  color: var(--soft);
}

textarea {
  width: calc(100% - 50px);
}
</style>
