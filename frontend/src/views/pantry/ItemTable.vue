<script setup lang="ts">
/** Packs with their prices, or what is in the larder: an item a line, changed where it stands. */
import { computed, ref } from "vue";
import type { Pantry } from "@/api/types";
import { type Amount, parseAmount, parsePrice } from "@/base/amount";
import { parseLength, UnitError } from "@/base/units";
import { useHandbook } from "@/kitchen/handbook";
import { LeftAsItIs, takeOut } from "@/kitchen/kept";
import { usePantry } from "@/kitchen/pantry";
import { useSettings } from "@/kitchen/settings";
import PantryFiles from "./PantryFiles.vue";
import PlainField from "./PlainField.vue";

const props = defineProps<{ what: "prices" | "larder" }>();
const pantry = usePantry();
const settings = useSettings();
const handbook = useHandbook();
const priced = computed(() => props.what === "prices");
const sought = ref("");
const item = ref("");
const amount = ref("");
const price = ref("");
const wrong = ref({ item: "", amount: "", price: "" });

const items = computed(() =>
  [...pantry.names].map(([key, name]) => ({ key, name })).sort((a, b) => a.name.localeCompare(b.name)),
);
/** The lines on show. `nth` tells the packs of one item apart, and stays while their size and price are changed. */
const rows = computed(() => {
  const kept = pantry.pantry;
  if (!kept) return [];
  const found = priced.value
    ? kept.packs.map((pack) => ({
        item: pack.item,
        amount: pack.size,
        unit: pack.unit,
        price: pack.price,
      }))
    : kept.larder.map((one) => ({ ...one, price: null }));
  const met = new Map<string, number>();
  return found
    .map((row) => {
      const nth = met.get(row.item) ?? 0;
      met.set(row.item, nth + 1);
      return { ...row, nth, name: pantry.nameOf(row.item) };
    })
    .filter((row) => row.name.toLowerCase().includes(sought.value.trim().toLowerCase()))
    .sort((a, b) => a.name.localeCompare(b.name) || a.amount - b.amount);
});

type Line = Pantry["packs"][number] | Pantry["larder"][number];
const linesOf = (kept: Pantry): Line[] => (priced.value ? kept.packs : kept.larder);
const same = (line: Line, row: Amount & { item: string }): boolean =>
  line.item === row.item &&
  line.unit === row.unit &&
  ("size" in line ? line.size : line.amount) === row.amount;

const counted = (key: string): boolean => !pantry.names.has(key.split("~")[0] ?? "");
const words = (one: Amount): string =>
  one.unit === "each"
    ? `${one.amount} ${one.amount === 1 ? "piece" : "pieces"}`
    : settings.words({ value: one.amount, unit: one.unit });

const goods = computed(() => Object.entries(handbook.book?.goods ?? {}));

/** The item a typed name stands for, goods by their name and size, or a sentence that says what would be known. */
function keyOf(typed: string): string {
  const plain = typed.trim().toLowerCase();
  const found = items.value.find((one) => one.name.toLowerCase() === plain || one.key === plain);
  if (found) return found.key;
  const [kind, name = ""] = goods.value.find(([, name]) => plain.startsWith(`${name.toLowerCase()} `)) ?? [];
  if (!kind)
    throw new UnitError(
      "Choose an item of the list; boards and the like with their size, such as Cake board 10 in.",
    );
  const sides = plain.slice(name.length).split(/[x×]/);
  const unit = /[a-z]+\s*$/.exec(sides.at(-1) ?? "")?.[0] ?? "";
  const sizes = sides.map((side) =>
    parseLength(/[a-z"″]\s*$/.test(side) ? side : `${side} ${unit}`, settings.length),
  );
  return `${kind}_${sizes.map((mm) => Math.round(mm)).join("x")}`;
}

function attempt<T>(field: keyof typeof wrong.value, read: () => T): T | undefined {
  try {
    wrong.value = { ...wrong.value, [field]: "" };
    return read();
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    wrong.value = { ...wrong.value, [field]: error.message };
    return undefined;
  }
}

async function add(): Promise<void> {
  const key = attempt("item", () => keyOf(item.value));
  const held = attempt("amount", () =>
    parseAmount(amount.value, settings.weight, key !== undefined && counted(key)),
  );
  const paid = priced.value
    ? attempt("price", () => (price.value.trim() ? parsePrice(price.value, settings.currency) : null))
    : null;
  if (key === undefined || held === undefined || paid === undefined) return;
  const fields = [item, amount, price];
  const sent = fields.map((field) => field.value);
  const kept = await pantry.change((draft) => {
    if (priced.value) {
      const known = draft.packs.find((one) => same(one, { item: key, ...held }));
      if (known) known.price = paid ?? known.price;
      else draft.packs.push({ item: key, size: held.amount, unit: held.unit, price: paid });
    } else {
      draft.larder = draft.larder.filter((one) => one.item !== key);
      draft.larder.push({ item: key, amount: held.amount, unit: held.unit });
    }
  });
  // What was typed meanwhile, for the next one, stays.
  if (kept) fields.forEach((field, index) => field.value === sent[index] && (field.value = ""));
}

type Row = (typeof rows.value)[number];

/** Take what was typed into a row; the sentence that says what is wrong, or nothing. */
async function take(row: Row, read: () => object): Promise<string> {
  try {
    const found = read();
    const kept = await pantry.change((draft) => {
      const line = linesOf(draft).filter((one) => one.item === row.item)[row.nth];
      if (!line) throw new LeftAsItIs("Somebody else took that line out meanwhile.");
      Object.assign(line, found);
    });
    return kept ? "" : pantry.trouble;
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    return error.message;
  }
}

const setAmount = (row: Row, text: string): Promise<string> =>
  take(row, () => {
    const { amount, unit } = parseAmount(text, settings.weight, counted(row.item));
    return priced.value ? { size: amount, unit } : { amount, unit };
  });

const setPrice = (row: Row, text: string): Promise<string> =>
  take(row, () => ({ price: text.trim() ? parsePrice(text, settings.currency) : null }));

/** Take this very line out: clicked twice before it is gone, it takes no other with it. */
function remove(row: Row): void {
  void pantry.change((draft) => takeOut(linesOf(draft), (one) => same(one, row)));
}
</script>

<template>
  <section class="table">
    <div class="head">
      <input v-model="sought" type="search" placeholder="Look for an item" aria-label="Look for an item" />
      <PantryFiles :what="what" :words="priced ? 'a price list' : 'a larder list'" />
    </div>
    <form @submit.prevent="add">
      <label>
        <span>Item</span>
        <input
          v-model="item"
          type="text"
          list="items"
          autocomplete="off"
          aria-label="Item"
          aria-describedby="wrong-item"
          :aria-invalid="wrong.item !== ''"
        />
        <datalist id="items">
          <option v-for="one in items" :key="one.key" :value="one.name" />
          <option v-for="[kind, name] in goods" :key="kind" :value="`${name} 10 in`" />
        </datalist>
        <span v-if="wrong.item" id="wrong-item" class="says" role="alert">{{ wrong.item }}</span>
      </label>
      <label>
        <span>{{ priced ? "A pack holds" : "There is" }}</span>
        <input
          v-model="amount"
          type="text"
          placeholder="250 g"
          autocomplete="off"
          :aria-label="priced ? 'A pack holds' : 'There is'"
          aria-describedby="wrong-amount"
          :aria-invalid="wrong.amount !== ''"
        />
        <span v-if="wrong.amount" id="wrong-amount" class="says" role="alert">{{ wrong.amount }}</span>
      </label>
      <label v-if="priced">
        <span>Price, {{ settings.currency }}</span>
        <input
          v-model="price"
          type="text"
          placeholder="2.40"
          autocomplete="off"
          :aria-label="`Price, ${settings.currency}`"
          aria-describedby="wrong-price"
          :aria-invalid="wrong.price !== ''"
        />
        <span v-if="wrong.price" id="wrong-price" class="says" role="alert">{{ wrong.price }}</span>
      </label>
      <button class="act main">{{ priced ? "Add this pack" : "Put it in" }}</button>
    </form>
    <div class="scroll" tabindex="0" role="group" :aria-label="priced ? 'Packs and prices' : 'The larder'">
      <p v-if="!rows.length" class="soft">
        {{
          sought
            ? "Nothing is called that."
            : priced
              ? "No prices yet. Add a pack above, or take over a price list with the columns item, pack, unit and price."
              : "The larder is empty. Put something in above, or take over a list with the columns item, amount and unit."
        }}
      </p>
      <table v-else>
        <thead>
          <tr>
            <th>Item</th>
            <th>{{ priced ? "A pack holds" : "There is" }}</th>
            <th v-if="priced">Price, {{ settings.currency }}</th>
            <th><span class="unseen">Remove</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="`${row.item} ${row.nth}`" :data-item="row.item">
            <td>{{ row.name }}</td>
            <td>
              <PlainField
                :label="`${row.name}, amount`"
                :value="words(row)"
                :take="(text) => setAmount(row, text)"
              />
            </td>
            <td v-if="priced">
              <PlainField
                :label="`${row.name}, price`"
                :value="row.price?.toFixed(2) ?? ''"
                placeholder="not known"
                :take="(text) => setPrice(row, text)"
              />
            </td>
            <td>
              <button class="act" :aria-label="`Remove ${row.name}`" @click="remove(row)">×</button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.table {
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-height: 0;
}

.head {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: start;
}

.head > input,
form input {
  padding: 0 6px;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
  align-items: start;
  padding: 12px 14px;
  background: var(--tint);
}

form label {
  display: grid;
  gap: 2px;
  max-width: 300px;
}

form .act {
  margin-top: 22px;
}

.says {
  color: var(--trouble);
  font-size: 15px;
}

.scroll {
  flex: 1;
  min-height: 0;
  position: relative;
  overflow: auto;
}

table {
  width: 100%;
  max-width: 880px;
  border-collapse: collapse;
}

th {
  position: sticky;
  top: 0;
  padding: 6px 10px 6px 0;
  border-bottom: 2px solid var(--ink);
  background: var(--paper);
  text-align: left;
}

td {
  padding: 2px 10px 2px 0;
  border-bottom: 1px solid var(--rule);
  font-size: 17px;
}

td .act {
  width: 40px;
  padding: 0;
}
</style>
