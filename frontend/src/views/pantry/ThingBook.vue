<script setup lang="ts">
/** Media and ingredients: those of the program, changed for this kitchen, and the kitchen's own beside them. */
import { computed, nextTick, ref, shallowRef } from "vue";
import type { Ingredient, Medium, Pantry } from "@/api/types";
import { copied } from "@/base/copy";
import { parseWeight, UnitError } from "@/base/units";
import { useHandbook } from "@/kitchen/handbook";
import { isOwnKey, ownKey, sourceWords, usePantry } from "@/kitchen/pantry";
import { useSettings } from "@/kitchen/settings";
import CupFields from "@/ui/CupFields.vue";
import PlainField from "./PlainField.vue";

type Thing = Medium | Ingredient;
type List = "media" | "ingredients";
const pantry = usePantry();
const settings = useSettings();
const handbook = useHandbook();
const kinds = computed(() => handbook.words<Medium["kind"]>("media"));
const allergens = computed(() =>
  handbook.words<Medium["allergens"][number]>("allergens").map((one) => one.value),
);
const WAYS = [
  { name: "suits_under_fondant", words: "goes under fondant" },
  { name: "crusting", words: "crusts" },
  { name: "soft", words: "runs when pressed: needs a dam" },
  { name: "perishable", words: "must not stand out of the fridge long" },
  { name: "raw_egg", words: "holds raw egg" },
] as const;

const byName = (things: readonly Thing[]): Thing[] =>
  [...things].sort((a, b) => a.name.localeCompare(b.name));
/** Just begun and not kept yet: on show at once, so that what is typed next goes into it. */
const begun = shallowRef<{ list: List; thing: Thing } | null>(null);

function known(list: List, kept: readonly Thing[] = []): Thing[] {
  const mine = begun.value?.list === list ? begun.value.thing : undefined;
  return byName(mine && !kept.some((one) => one.key === mine.key) ? [...kept, mine] : kept);
}

const groups = computed(() => [
  { words: "Media", list: "media" as const, things: known("media", pantry.larder?.media) },
  {
    words: "Ingredients",
    list: "ingredients" as const,
    things: known("ingredients", pantry.larder?.ingredients),
  },
]);
const own = computed(
  () =>
    new Set([...(pantry.pantry?.media ?? []), ...(pantry.pantry?.ingredients ?? [])].map((one) => one.key)),
);
const key = ref("");
const title = ref<HTMLElement>();
const group = computed(
  () => groups.value.find((one) => one.things.some((thing) => thing.key === key.value)) ?? groups.value[0],
);
const thing = computed(
  () => group.value?.things.find((one) => one.key === key.value) ?? group.value?.things[0],
);
const medium = computed(() => (group.value?.list === "media" ? (thing.value as Medium) : undefined));
const ingredient = computed(() =>
  group.value?.list === "ingredients" ? (thing.value as Ingredient) : undefined,
);

function choose(chosen: string): void {
  key.value = chosen;
  needed.value = "";
  pantry.forgive();
}

/** Keep this thing as this kitchen's own, changed from how it stands then. Empty, or the sentence that says why not. */
async function alter<T extends Thing>(shown: T | undefined, how: (own: T) => void): Promise<string> {
  const list = group.value?.list;
  if (!shown || !list) return "";
  const kept = await pantry.change((draft: Pantry) => {
    const things = draft[list] as Thing[];
    const at = things.findIndex((one) => one.key === shown.key);
    const own = copied(things[at] ?? shown) as T;
    how(own);
    if (at < 0) things.push(own);
    else things[at] = own;
  });
  return kept ? "" : pantry.trouble;
}

async function setName(text: string): Promise<string> {
  const name = text.trim();
  if (!name || name.length > 80) return "Type a name of 1 to 80 characters.";
  return alter(thing.value, (one) => (one.name = name));
}

async function setEach(text: string): Promise<string> {
  try {
    const grams = text.trim() ? parseWeight(text, settings.weight) : null;
    return await alter(ingredient.value, (one) => (one.each_g = grams));
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    return error.message;
  }
}

async function weigh(density: number): Promise<string> {
  const wrong = await alter(thing.value, (one) => {
    one.density_g_per_ml = density;
    one.density_source = { origin: "this kitchen", reference: "" };
  });
  return wrong || "Taken, for recipes and for every new order.";
}

function toggle(allergen: Medium["allergens"][number]): void {
  void alter(thing.value, (one) => {
    const had = one.allergens.includes(allergen);
    one.allergens = had ? one.allergens.filter((each) => each !== allergen) : [...one.allergens, allergen];
  });
}

/** Begin a thing of ours: its name is there to be typed at once, whatever the server still has to keep. */
async function another(list: List): Promise<void> {
  const made = ownKey();
  const fresh: Thing =
    list === "media"
      ? {
          key: made,
          name: "A medium of ours",
          kind: "buttercream",
          density_g_per_ml: 0.9,
          density_source: { origin: "from memory", reference: "as most buttercreams; weigh a cup of yours" },
          hex: "#EFE3CC",
          soft: false,
          crusting: false,
          suits_under_fondant: true,
          perishable: false,
          raw_egg: false,
          allergens: [],
          firms: "",
        }
      : {
          key: made,
          name: "An ingredient of ours",
          density_g_per_ml: null,
          density_source: { origin: "this kitchen", reference: "" },
          each_g: null,
          allergens: [],
        };
  begun.value = { list, thing: fresh };
  choose(made);
  const kept = alter(fresh, () => undefined);
  await nextTick();
  const field = title.value?.querySelector("input");
  field?.focus();
  field?.select();
  if ((await kept) === "") begun.value = null;
}

/** What recipes of ours are made with it, or make it: without it they could not be weighed. */
const needed = ref("");

async function dropOwn(): Promise<void> {
  const gone = thing.value?.key;
  const program = !isOwnKey(gone ?? "");
  const users = (pantry.pantry?.recipes ?? []).filter(
    (one) => one.makes === gone || one.lines.some((line) => line.item === gone),
  );
  needed.value =
    users.length && !program
      ? `Still needed for ${users.map((one) => one.name).join(" and ")}. Take it out there first.`
      : "";
  if (needed.value) return;
  begun.value = null;
  await pantry.change((kept) => {
    if (!program) {
      kept.packs = kept.packs.filter((one) => one.item.split("~")[0] !== gone);
      kept.larder = kept.larder.filter((one) => one.item.split("~")[0] !== gone);
    }
    kept.media = kept.media.filter((one) => one.key !== gone);
    kept.ingredients = kept.ingredients.filter((one) => one.key !== gone);
  });
}
</script>

<template>
  <section class="book">
    <nav aria-label="Media and ingredients">
      <div v-for="one in groups" :key="one.list">
        <h2>{{ one.words }}</h2>
        <button
          v-for="each in one.things"
          :key="each.key"
          :class="{ chosen: each.key === thing?.key }"
          :aria-current="each.key === thing?.key ? 'true' : undefined"
          @click="choose(each.key)"
        >
          {{ each.name }}<span v-if="own.has(each.key)" class="own">ours</span>
        </button>
      </div>
    </nav>
    <article v-if="thing" :key="thing.key" :aria-label="thing.name">
      <div ref="title">
        <PlainField class="title" label="Name" :value="thing.name" wide :take="setName" />
      </div>
      <label v-if="medium" class="line">
        <span>It is a</span>
        <select
          :value="medium.kind"
          @change="
            alter(medium, (one) => (one.kind = ($event.target as HTMLSelectElement).value as Medium['kind']))
          "
        >
          <option v-for="kind in kinds" :key="kind.value" :value="kind.value">{{ kind.words }}</option>
        </select>
      </label>
      <label v-if="medium" class="line">
        <span>Uncoloured it looks</span>
        <input
          type="color"
          :value="medium.hex"
          @change="
            alter(medium, (one) => (one.hex = ($event.target as HTMLInputElement).value.toUpperCase()))
          "
        />
      </label>
      <div v-if="ingredient" class="line">
        <span>One piece weighs</span>
        <PlainField
          label="One piece weighs"
          :value="ingredient.each_g == null ? '' : settings.words({ value: ingredient.each_g, unit: 'g' })"
          placeholder="not counted"
          :take="setEach"
        />
      </div>
      <div class="line">
        <span>1 ml weighs</span>
        <span class="value">{{
          thing.density_g_per_ml == null ? "not known" : `${thing.density_g_per_ml} g`
        }}</span>
      </div>
      <p v-if="thing.density_g_per_ml != null" class="soft">Taken {{ sourceWords(thing.density_source) }}.</p>
      <template v-if="medium">
        <h3>How it behaves</h3>
        <label v-for="way in WAYS" :key="way.name" class="tick">
          <input
            type="checkbox"
            :checked="medium[way.name]"
            @change="alter(medium, (one) => (one[way.name] = !one[way.name]))"
          />{{ way.words }}
        </label>
        <label class="firms">
          <span>How it sets</span>
          <textarea
            :value="medium.firms"
            rows="3"
            maxlength="400"
            @change="
              alter(
                medium,
                (one) =>
                  (one.firms = ($event.target as HTMLTextAreaElement).value.replace(/\s+/g, ' ').trim()),
              )
            "
          />
        </label>
      </template>
    </article>
    <aside v-if="thing" :key="thing.key">
      <div class="acts">
        <button class="act" @click="another('media')">A medium of ours</button>
        <button class="act" @click="another('ingredients')">An ingredient of ours</button>
        <button v-if="own.has(thing.key)" class="act" @click="dropOwn">Take ours away</button>
      </div>
      <p v-if="needed || pantry.complaints.length" class="wrong" role="alert">
        {{ needed || pantry.trouble }}
      </p>
      <h3>Weigh a cup of yours</h3>
      <CupFields :take="weigh" />
      <h3>Allergens</h3>
      <div class="allergens">
        <label v-for="one in allergens" :key="one" class="tick">
          <input type="checkbox" :checked="thing.allergens.includes(one)" @change="toggle(one)" />{{ one }}
        </label>
      </div>
      <p class="soft">
        As it usually is. Go by the label of what you buy, traces included, and by your local food law.
      </p>
    </aside>
  </section>
</template>

<style scoped src="./book.css"></style>
<style scoped>
.value {
  font: 600 18px var(--serif);
}

.rows :deep(> *) {
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}

.tick {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 40px;
}

.allergens {
  display: grid;
  grid-template-columns: 1fr 1fr;
}

.firms {
  display: grid;
  gap: 4px;
  margin-top: 10px;
}

input[type="color"] {
  width: 64px;
  height: 36px;
  padding: 0;
  border: 1px solid var(--ink);
  background: none;
}
</style>
