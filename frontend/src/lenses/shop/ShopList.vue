<script setup lang="ts">
/** A list for the hand at the shop: what to buy, in which packs, ticked off as it goes into the basket. */
import { computed } from "vue";
import type { Want } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import { useShopping } from "@/order/shopping";
import FigureValue from "@/ui/FigureValue.vue";
import FractionText from "@/ui/FractionText.vue";

const shop = useShopping();
const settings = useSettings();
const GROUPS: readonly { group: Want["group"]; words: string }[] = [
  { group: "ingredients", words: "Ingredients" },
  { group: "ready", words: "Ready to use" },
  { group: "goods", words: "Boards and supports" },
  { group: "tools", words: "Tools to get, once" },
];
const wants = computed(() => Object.values(shop.shopping?.wants ?? {}));
const groups = computed(() =>
  GROUPS.map(({ group, words }) => ({
    words,
    wants: wants.value.filter((want) => want.group === group && want.to_buy.value > 0),
  })).filter((one) => one.wants.length),
);
const had = computed(() => wants.value.filter((want) => want.to_buy.value <= 0));

/** What of it is in the larder, counted where it is counted. */
function inLarder(want: Want): string {
  return want.in_larder ? settings.words(want.in_larder) : "";
}

/** The packs to put in the basket; without any, the amount. */
function buying(want: Want): string {
  const packs = Object.values(want.packs).map((one) => {
    const size = one.size;
    if (size.unit !== "each") return `${one.count.value} × ${settings.words(size)}`;
    return size.value === 1 ? String(one.count.value) : `${one.count.value} × pack of ${size.value}`;
  });
  if (packs.length) return packs.join(" + ");
  if (want.pieces_to_buy) return `${want.pieces_to_buy.value}, ${settings.words(want.to_buy)}`;
  return settings.words(want.to_buy);
}
</script>

<template>
  <div class="list" tabindex="0" role="group" aria-label="The shopping list" :aria-busy="shop.busy">
    <p v-if="shop.trouble" class="trouble" role="alert">{{ shop.trouble }}</p>
    <p v-if="!shop.shopping && !shop.trouble" class="soft" role="status">
      {{ shop.awaited || "Writing the list …" }}
    </p>
    <template v-if="shop.shopping">
      <p v-if="!wants.length" class="soft">Nothing is due on these days.</p>
      <p v-for="gap in shop.shopping.gaps" :key="gap" class="trouble">{{ gap }}</p>
      <section v-for="one in groups" :key="one.words">
        <h3>{{ one.words }}</h3>
        <ul>
          <li v-for="want in one.wants" :key="want.item" :class="{ ticked: shop.ticked.includes(want.item) }">
            <label>
              <input
                type="checkbox"
                :checked="shop.ticked.includes(want.item)"
                :data-want="want.item"
                @change="shop.tick(want.item)"
              />
              <span class="name"><FractionText :text="settings.labelWords(want.label)" /></span>
            </label>
            <span class="buy">{{ buying(want) }}</span>
            <span class="need">
              <span v-if="want.group !== 'tools'">
                need
                <template v-if="want.pieces">
                  <FigureValue :figure="want.pieces" :label="`${want.label.name}, pieces`" />or
                </template>
                <FigureValue :figure="want.needed" :label="`${want.label.name}, needed`" />
              </span>
              <span v-if="want.in_larder" class="in">{{ inLarder(want) }} in the larder</span>
            </span>
            <span class="cost">
              <FigureValue v-if="want.cost" :figure="want.cost" :label="`${want.label.name}, cost`" />
              <span v-else class="soft">no price</span>
            </span>
          </li>
        </ul>
      </section>
      <p v-if="had.length" class="soft">
        In the larder already:
        <FractionText :text="`${had.map((want) => settings.labelWords(want.label)).join(', ')}.`" />
      </p>
    </template>
  </div>
</template>

<style scoped>
.list {
  height: 100%;
  padding: 14px 30px 24px;
  position: relative;
  overflow: auto;
}

section {
  max-width: 980px;
  margin: 0 auto 18px;
}

h3 {
  padding-bottom: 4px;
  border-bottom: 2px solid var(--ink);
  font-size: 21px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(0, 1.1fr) minmax(0, 1.15fr) 104px;
  gap: 12px;
  align-items: center;
  min-height: 46px;
  border-bottom: 1px solid var(--rule);
}

label {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 44px;
  cursor: pointer;
}

input {
  flex: none;
  width: 24px;
  height: 24px;
  accent-color: var(--amber);
}

.name {
  display: -webkit-box;
  overflow: hidden;
  min-width: 0;
  font-size: 18px;
  overflow-wrap: anywhere;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}

.buy {
  font: 600 19px var(--serif);
}

.need {
  display: grid;
  color: var(--soft);
}

.need :deep(.figure) {
  min-height: 30px;
  padding-top: 2px;
}

.in {
  padding-bottom: 5px;
  font-size: 15px;
}

.need :deep(.number) {
  font-size: 17px;
}

.cost {
  text-align: right;
}

.cost :deep(.number) {
  font-size: 18px;
}

.ticked .name,
.ticked .buy {
  color: var(--soft);
  text-decoration: line-through;
}

.trouble {
  margin-bottom: 10px;
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}
</style>
