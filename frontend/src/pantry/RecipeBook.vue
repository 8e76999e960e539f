<script setup lang="ts">
/** The recipes: those of the program and the kitchen's own, changed where they stand and scaled to any amount. */
import { computed, ref, watch } from "vue";
import { answered, api, Refused } from "@/api/client";
import type { Recipe, RecipeLine, Scaled } from "@/api/types";
import ScaledRecipe from "@/lenses/ScaledRecipe.vue";
import { parseAmount } from "@/shared/amount";
import { usePantry } from "@/shared/pantry";
import { useSettings } from "@/shared/settings";
import { parseWeight, UnitError } from "@/shared/units";
import PantryFiles from "./PantryFiles.vue";
import PlainField from "./PlainField.vue";

const pantry = usePantry();
const settings = useSettings();
const key = ref("");
const draft = ref<Recipe | null>(null);
const wantedText = ref("");
const scaled = ref<Scaled | null>(null);
const wrong = ref("");

const recipes = computed(() =>
  [...(pantry.larder?.recipes ?? [])].sort((a, b) => a.name.localeCompare(b.name)),
);
const groups = computed(() => [
  { words: "Coats, fillings and sheets", recipes: recipes.value.filter((one) => !one.cake) },
  { words: "Cakes", recipes: recipes.value.filter((one) => one.cake) },
]);
const own = computed(() => new Set((pantry.pantry?.recipes ?? []).map((one) => one.key)));
const inUse = computed(() => pantry.larder?.in_use ?? {});
const items = computed(() => [...pantry.names].sort((a, b) => a[1].localeCompare(b[1])));
const media = computed(() => [...(pantry.larder?.media ?? [])].sort((a, b) => a.name.localeCompare(b.name)));
const changed = computed(() => {
  const kept = recipes.value.find((one) => one.key === key.value);
  return draft.value !== null && JSON.stringify(draft.value) !== JSON.stringify(kept);
});
const rival = computed(() => {
  const one = draft.value;
  return one !== null && !one.cake && inUse.value[one.makes] !== one.key;
});

function choose(recipe: Recipe): void {
  key.value = recipe.key;
  draft.value = JSON.parse(JSON.stringify(recipe)) as Recipe;
  [wrong.value, wantedText.value] = ["", ""];
}

watch(
  recipes,
  (found) => {
    const kept = found.find((one) => one.key === key.value) ?? found.find((one) => !one.cake);
    if (kept && (!draft.value || !changed.value)) choose(kept);
  },
  { immediate: true },
);

/** Scaled by the server as it stands, saved or not; only the newest answer counts. */
let asked = 0;
watch(
  [draft, wantedText],
  async () => {
    const recipe = draft.value;
    if (!recipe) return;
    const mine = (asked += 1);
    try {
      const grams = wantedText.value.trim() ? parseWeight(wantedText.value, settings.weight) : 1000;
      const body = { recipe: JSON.parse(JSON.stringify(recipe)) as Recipe, wanted_g: grams };
      const found = (await answered(api.POST("/api/pantry/scale", { body }))) as Scaled;
      if (mine !== asked) return;
      [scaled.value, wrong.value] = [found, ""];
    } catch (error) {
      if (mine !== asked) return;
      if (error instanceof UnitError) wrong.value = error.message;
      else if (error instanceof Refused)
        wrong.value = error.problem.errors
          .map((one) => `${one.field.replace(/^recipe\./, "")} ${one.message}.`)
          .join(" ");
      else wrong.value = "The kitchen's server cannot be reached just now.";
    }
  },
  { deep: true, immediate: true },
);

function alter(how: (recipe: Recipe) => void): void {
  if (draft.value) how(draft.value);
}

function amountWords(line: RecipeLine): string {
  if (line.unit === "each") return `${line.amount} ${line.amount === 1 ? "piece" : "pieces"}`;
  return line.unit === "ml" ? `${line.amount} ml` : `${line.amount} g`;
}

function setAmount(index: number, text: string): string {
  try {
    const { amount, unit } = parseAmount(text, settings.weight, false);
    alter((recipe) => Object.assign(recipe.lines[index] ?? {}, { amount, unit }));
    return "";
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    return error.message;
  }
}

function setYield(text: string): string {
  try {
    const grams = text.trim() ? parseWeight(text, settings.weight) : null;
    if (grams !== null && grams < 1)
      return "Type 1 g or more, or leave it empty for the sum of what goes in.";
    alter((recipe) => (recipe.yield_g = grams));
    return "";
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    return error.message;
  }
}

function setBatter(text: string): string {
  const value = Number(text.trim().replace(",", "."));
  if (!(value >= 0.1 && value <= 3)) return "Type what 1 ml of batter weighs in g, 0.1 to 3.";
  alter((recipe) => (recipe.batter_g_per_ml = value));
  return "";
}

async function keep(): Promise<void> {
  const recipe = draft.value;
  if (!recipe) return;
  await pantry.change((kept) => {
    kept.recipes = [...kept.recipes.filter((one) => one.key !== recipe.key), recipe];
  });
}

async function dropOwn(): Promise<void> {
  const gone = key.value;
  draft.value = null;
  await pantry.change((kept) => {
    kept.recipes = kept.recipes.filter((one) => one.key !== gone);
    for (const [made, chosen] of Object.entries(kept.chosen)) if (chosen === gone) delete kept.chosen[made];
  });
}

function use(): void {
  const recipe = draft.value;
  if (recipe) void pantry.change((kept) => (kept.chosen[recipe.makes] = recipe.key));
}

async function another(cake: boolean): Promise<void> {
  let number = 1;
  while (recipes.value.some((one) => one.key === `own_${number}`)) number += 1;
  const made = `own_${number}`;
  const recipe: Recipe = {
    key: made,
    name: cake ? "A cake of ours" : "A recipe of ours",
    makes: cake ? made : "american_buttercream",
    cake,
    batter_g_per_ml: cake ? 0.9 : null,
    lines: [
      { item: "butter", amount: 250, unit: "g", whole: false },
      { item: "icing_sugar", amount: 250, unit: "g", whole: false },
    ],
    steps: [],
    yield_g: null,
    by_quarters: cake,
  };
  key.value = made;
  draft.value = null;
  // The program's recipe goes on counting until this one is taken.
  await pantry.change((kept) => {
    if (!cake) kept.chosen[recipe.makes] ??= inUse.value[recipe.makes] ?? recipe.makes;
    kept.recipes.push(recipe);
  });
}
</script>

<template>
  <section class="book">
    <nav aria-label="Recipes">
      <div v-for="group in groups" :key="group.words">
        <h2>{{ group.words }}</h2>
        <button
          v-for="one in group.recipes"
          :key="one.key"
          :class="{ chosen: one.key === key }"
          :aria-current="one.key === key ? 'true' : undefined"
          @click="choose(one)"
        >
          {{ one.name }}
          <span v-if="own.has(one.key)" class="own">ours</span>
          <span v-if="!one.cake && inUse[one.makes] !== one.key" class="own">not in use</span>
        </button>
      </div>
    </nav>
    <article v-if="draft" :aria-label="draft.name">
      <PlainField
        class="title"
        label="Name"
        :value="draft.name"
        wide
        :take="
          (text) => {
            if (!text.trim()) return 'Type a name of 1 to 80 characters.';
            alter((recipe) => (recipe.name = text.trim().slice(0, 80)));
            return '';
          }
        "
      />
      <label v-if="!draft.cake" class="line">
        <span>Makes</span>
        <select v-model="draft.makes">
          <option v-for="one in media" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
      </label>
      <div v-else class="line">
        <span>1 ml of batter weighs, g</span>
        <PlainField
          label="1 ml of batter weighs, g"
          :value="String(draft.batter_g_per_ml ?? '')"
          :take="setBatter"
        />
      </div>
      <h3>Goes in</h3>
      <table>
        <tbody>
          <tr v-for="(line, index) in draft.lines" :key="index">
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
              <label class="whole"><input v-model="line.whole" type="checkbox" /> whole pieces</label>
            </td>
            <td>
              <button
                class="act"
                :aria-label="`Take out ingredient ${index + 1}`"
                :disabled="draft.lines.length === 1"
                @click="alter((recipe) => recipe.lines.splice(index, 1))"
              >
                ×
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <button
        class="act"
        @click="alter((recipe) => recipe.lines.push({ item: 'sugar', amount: 100, unit: 'g', whole: false }))"
      >
        Another ingredient
      </button>
      <div class="line">
        <span>Weighs in the end</span>
        <PlainField
          label="Weighs in the end"
          :value="draft.yield_g == null ? '' : settings.words({ value: draft.yield_g, unit: 'g' })"
          placeholder="what goes in"
          :take="setYield"
        />
      </div>
      <label class="line"
        ><span>Only in quarters of the recipe</span><input v-model="draft.by_quarters" type="checkbox"
      /></label>
      <h3>Steps</h3>
      <ol>
        <li v-for="(step, index) in draft.steps" :key="index">
          <textarea
            :value="step"
            rows="2"
            maxlength="400"
            :aria-label="`Step ${index + 1}`"
            @change="
              alter(
                (recipe) =>
                  (recipe.steps[index] = ($event.target as HTMLTextAreaElement).value
                    .replace(/\s+/g, ' ')
                    .trim()),
              )
            "
          />
          <button
            class="act"
            :aria-label="`Take out step ${index + 1}`"
            @click="alter((recipe) => recipe.steps.splice(index, 1))"
          >
            ×
          </button>
        </li>
      </ol>
      <button class="act" @click="alter((recipe) => recipe.steps.push(''))">Another step</button>
    </article>
    <aside>
      <div class="acts">
        <button class="act main" :disabled="!changed" @click="keep">Keep these changes</button>
        <button
          class="act"
          :disabled="!changed"
          @click="choose(recipes.find((one) => one.key === key) ?? recipes[0]!)"
        >
          Leave it as it was
        </button>
        <button v-if="rival" class="act" :disabled="changed" @click="use">Use this one from now on</button>
        <button v-if="own.has(key)" class="act" @click="dropOwn">Take ours away</button>
      </div>
      <p
        v-if="pantry.trouble && !pantry.complaints.some((one) => one.pointer.startsWith('#/lines'))"
        class="wrong"
        role="alert"
      >
        {{ pantry.trouble }}
      </p>
      <label class="line">
        <span>Scale it to</span>
        <input v-model="wantedText" type="text" placeholder="1 kg" aria-label="Scale it to" />
      </label>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <ScaledRecipe v-if="scaled" :recipe="scaled" open />
      <div class="acts">
        <button class="act" @click="another(false)">A recipe of ours</button>
        <button class="act" @click="another(true)">A cake of ours</button>
      </div>
      <PantryFiles what="recipes" words="recipes" />
    </aside>
  </section>
</template>

<style scoped>
.book {
  display: grid;
  flex: 1;
  grid-template-columns: 236px minmax(0, 1fr) 372px;
  gap: 22px;
  min-height: 0;
}

nav,
article,
aside {
  min-height: 0;
  padding-bottom: 20px;
  overflow: auto;
}

nav button {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
  width: 100%;
  min-height: 42px;
  padding: 8px 10px;
  border: 0;
  border-left: 4px solid transparent;
  background: none;
  text-align: left;
  cursor: pointer;
}

nav button:hover {
  background: #f6ecd8;
}

nav .chosen {
  border-color: var(--amber-line);
  background: var(--tint);
  font-weight: 600;
}

.own {
  color: var(--soft);
  font-size: 14px;
  font-weight: 400;
}

h2 {
  padding: 10px;
  font-size: 17px;
}

h3 {
  margin: 16px 0 4px;
  font-size: 19px;
}

.title :deep(input) {
  font-size: 24px;
}

.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 46px;
  border-bottom: 1px solid var(--rule);
}

.line input[type="text"],
.line select,
td select {
  max-width: 100%;
  height: 40px;
  border: 0;
  border-bottom: 2px solid var(--amber-line);
  background: none;
  color: inherit;
  font: 600 17px var(--serif);
}

.line > input[type="text"] {
  width: 110px;
  text-align: right;
}

input[type="checkbox"] {
  width: 22px;
  height: 22px;
  accent-color: var(--amber);
}

table {
  width: 100%;
  border-collapse: collapse;
}

td {
  padding: 2px 8px 2px 0;
  border-bottom: 1px solid var(--rule);
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
  padding: 6px;
  border: 0;
  border-bottom: 2px solid var(--amber-line);
  background: none;
  color: inherit;
  font: inherit;
  vertical-align: middle;
  resize: vertical;
}

aside {
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 0 4px 20px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.wrong {
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}

@media (width < 1180px) {
  .book {
    grid-template-columns: 190px minmax(0, 1fr) 300px;
    gap: 14px;
  }
}
</style>
