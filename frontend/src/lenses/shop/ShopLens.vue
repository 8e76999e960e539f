<script setup lang="ts">
/** What to buy for, and the money: what it costs by tier and step, and what it might be sold for. */
import { computed, onMounted, watch } from "vue";
import { RouterLink } from "vue-router";
import { stepWords } from "@/drawing/vessels";
import { useNotices } from "@/kitchen/notices";
import { usePantry } from "@/kitchen/pantry";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import ScaledRecipe from "@/lenses/parts/ScaledRecipe.vue";
import { useOrder } from "@/order/order";
import { useShopping } from "@/order/shopping";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import MeasureField from "@/ui/MeasureField.vue";

const order = useOrder();
const shop = useShopping();
const pantry = usePantry();
const settings = useSettings();
const SCOPES = [
  { value: "order", words: "This order" },
  { value: "week", words: "All orders due" },
] as const;
const found = computed(() => shop.shopping);
const shares = computed(() => Object.entries(found.value?.orders ?? {}));
const cost = computed(() => (shop.scope === "order" ? shares.value[0]?.[1].cost : undefined));
const pools = computed(() => Object.values(found.value?.pools ?? {}));
const terms = computed(() => pantry.pantry?.terms);
const unpriced = computed(() => {
  const names = (keys: readonly string[]): string[] => [
    ...new Set(keys.map((key) => found.value?.labels[key]?.name ?? key)),
  ];
  return names(cost.value ? cost.value.unpriced : (found.value?.unpriced ?? []));
});
/** What there is to pay; nothing where what is to be bought has no price at all. */
const till = computed(() => {
  const spend = found.value?.spend;
  return spend && (spend.value > 0 || !found.value?.unpriced.length) ? spend : null;
});
const detail = computed(() => {
  if (shop.scope === "order") return "For this order as it stands";
  if (!found.value) return shop.awaited || "Working out the list …";
  const count = shares.value.length;
  if (!count) return "No order is due on these days";
  return count === 1 ? "One order is due" : `${count} orders are due`;
});
const file = computed(() => {
  if (shop.scope === "order") return `/api/orders/${order.id}/shopping`;
  return "/api/shop/week";
});

/** What the kitchen asks on top of its materials, and what each comes to. */
const TERMS = [
  {
    name: "hour_price",
    words: "An hour costs",
    limit: "price",
    comes: { words: "Work comes to", to: "work" },
  },
  {
    name: "overhead",
    words: "Overhead",
    limit: "fraction",
    comes: { words: "Overhead comes to", to: "overhead" },
  },
  { name: "profit", words: "Profit", limit: "fraction", comes: { words: "Profit comes to", to: "profit" } },
  { name: "round_to", words: "Prices come in steps of", limit: "round_to", comes: null },
] as const;

function setTerm(name: (typeof TERMS)[number]["name"], value: number | null): void {
  if (value !== null) void pantry.change((kept) => (kept.terms[name] = value));
}

/** What was just edited is saved first, so that the paper says what the screen says. */
async function take(kind: "pdf" | "csv"): Promise<void> {
  await order.save();
  const units = `length=${settings.length}&weight=${settings.weight}`;
  const { first, days, pooled } = shop.query;
  const scope = shop.scope === "week" ? `first=${first}&days=${days}&pooled=${pooled}&` : "";
  window.location.assign(`${file.value}.${kind}?${scope}${kind === "pdf" ? units : ""}`);
}

onMounted(() => {
  void pantry.open();
});
watch(
  [
    () => order.plan,
    () => shop.scope,
    () => shop.from,
    () => shop.days,
    () => shop.pooled,
    () => pantry.larder,
  ],
  () => void shop.refresh(),
  { immediate: true },
);
useNotices(
  () => shop.scope === "week" && shop.refresh(),
  (notice) => notice.what === "order" && notice.id !== order.id,
  1000,
);
</script>

<template>
  <section>
    <LensHead words="Shop" whole :detail="detail" />
    <template v-if="cost && unpriced.length">
      <p class="note" role="status">
        <strong
          >{{ unpriced.length }} {{ unpriced.length === 1 ? "thing has" : "things have" }} no price
          yet</strong
        >, so what the cake costs is not known: {{ unpriced.slice(0, 5).join(", ")
        }}{{ unpriced.length > 5 ? ` and ${unpriced.length - 5} more` : "" }}.
        <RouterLink :to="{ name: 'pantry' }">Give them prices</RouterLink>
      </p>
      <FigureRow
        :label="cost.materials.value > 0 ? 'With the prices there are, no less than' : 'Work alone comes to'"
        :figure="cost.materials.value > 0 ? cost.price : cost.work"
        main
      />
    </template>
    <FigureRow v-else-if="cost" label="A price to ask" :figure="cost.price" main />
    <FigureRow v-else label="To pay at the shop" :figure="till" :none="found ? 'no price' : ''" main />
    <ChoiceRow
      label="Shop for"
      :value="shop.scope"
      :choices="SCOPES"
      @change="(scope) => (shop.scope = scope)"
    />
    <template v-if="shop.scope === 'week'">
      <label class="line">
        From
        <input
          type="date"
          :value="shop.from"
          min="1970-01-01"
          max="2200-01-01"
          @change="shop.first = ($event.target as HTMLInputElement).value"
        />
      </label>
      <label class="line">
        For
        <select :value="shop.days" @change="shop.days = Number(($event.target as HTMLSelectElement).value)">
          <option v-for="days in [1, 3, 7, 14, 31]" :key="days" :value="days">
            {{ days === 1 ? "that day" : `${days} days` }}
          </option>
        </select>
      </label>
      <ul v-if="shares.length" class="orders">
        <li v-for="[key, share] in shares" :key="key">{{ share.title }}</li>
      </ul>
      <template v-if="pools.length">
        <h3>One mix for several orders</h3>
        <p class="soft">
          Amounts that run over in one are met by what runs under in another. Mix together where the days
          between allow it and your local food code agrees.
        </p>
        <FigureRow label="Together they save" :figure="found?.saved" />
        <FigureRow
          v-for="pool in pools"
          :key="pool.name"
          :label="`${pool.name} saves`"
          :figure="pool.saved"
        />
        <label class="line">
          <span>Shop for one mix</span>
          <input v-model="shop.pooled" type="checkbox" />
        </label>
      </template>
    </template>
    <div class="same">
      <button class="act main" :disabled="!shares.length" @click="take('pdf')">Print the list (PDF)</button>
      <div class="two">
        <button class="act" :disabled="!shares.length" @click="take('csv')">As CSV</button>
        <RouterLink class="act" :to="{ name: 'pantry' }">Recipes and prices</RouterLink>
      </div>
    </div>
    <p v-if="unpriced.length && !cost" class="note" role="status">
      No price is known for {{ unpriced.join(", ") }}: {{ unpriced.length === 1 ? "it is" : "they are" }} not
      in these sums.
    </p>
    <template v-if="cost && terms">
      <h3>What it costs</h3>
      <template v-for="(tier, key) in cost.tiers" :key="key">
        <FigureRow :label="tier.name" :figure="tier.whole" none="no price" />
        <details>
          <summary>{{ tier.name }}, by step</summary>
          <FigureRow
            v-for="(step, name) in tier.steps"
            :key="name"
            :label="stepWords(String(name))"
            :figure="step"
            none="no price"
          />
        </details>
      </template>
      <FigureRow label="Base board and supports" :figure="cost.base" none="no price" />
      <FigureRow
        label="Materials used"
        :figure="cost.materials.value > 0 ? cost.materials : null"
        none="no price"
      />
      <FigureRow label="At the till, in whole packs" :figure="till" :none="found ? 'no price' : ''" />
      <h3>Work and price</h3>
      <div class="rows">
        <MeasureField
          label="Minutes of work"
          limit="minutes"
          :value="order.document?.minutes"
          :usual="cost.minutes.value"
          pointer="#/minutes"
          @change="(value) => order.edit((draft) => (draft.minutes = value))"
        />
      </div>
      <template v-for="one in TERMS" :key="one.name">
        <div class="rows">
          <MeasureField
            :label="one.words"
            :limit="one.limit"
            :percent="one.limit === 'fraction'"
            :value="terms[one.name]"
            @change="(value) => setTerm(one.name, value)"
          />
        </div>
        <FigureRow v-if="one.comes" :label="one.comes.words" :figure="cost[one.comes.to]" />
      </template>
      <template v-if="cost.materials.value > 0">
        <FigureRow
          :label="unpriced.length ? 'A price to ask, no less than' : 'A price to ask'"
          :figure="cost.price"
        />
        <p class="soft">
          A suggestion. The price is yours to set<template v-if="unpriced.length"
            >, and what has no price yet comes on top</template
          >.
        </p>
      </template>
      <p v-else class="soft">A price to ask stands here once what goes into the cake has prices.</p>
    </template>
    <template v-if="found && Object.keys(found.recipes).length">
      <h3>What to make of it</h3>
      <ScaledRecipe v-for="recipe in found.recipes" :key="recipe.recipe" :recipe="recipe" />
    </template>
    <template v-if="found?.allergens.length">
      <h3>Allergens</h3>
      <dl>
        <template v-for="one in found.allergens" :key="one.allergen">
          <dt>{{ one.allergen }}</dt>
          <dd>{{ one.found_in.join(", ") }}</dd>
        </template>
      </dl>
      <p class="caution">
        <strong>Caution.</strong> As these recipes usually are. Go by the labels of what you buy, traces
        included, and tell the customer as your local food law asks.
      </p>
    </template>
  </section>
</template>

<style scoped>
.line input[type="date"],
.line select {
  font: 600 17px var(--serif);
}

.line input[type="checkbox"] {
  width: 24px;
  height: 24px;
  accent-color: var(--amber);
}

.orders {
  margin: 8px 0;
  padding-left: 20px;
  list-style: disc;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1.5fr;
  gap: 8px;
}

a.act {
  display: grid;
  place-content: center;
  text-decoration: none;
}

.soft {
  padding: 6px 0;
}

.note {
  margin-top: 12px;
  padding: 8px 12px;
  border-left: 4px solid var(--amber-line);
  background: var(--paper);
}

.caution {
  padding: 8px 12px;
  border-left: 4px solid var(--teal);
  background: var(--paper);
}

details {
  padding-left: 14px;
}

summary {
  min-height: 40px;
  padding-top: 8px;
  color: var(--soft);
  cursor: pointer;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 14px;
  margin: 0 0 10px;
}

dt {
  font-weight: 600;
}

dd {
  margin: 0;
}
</style>
