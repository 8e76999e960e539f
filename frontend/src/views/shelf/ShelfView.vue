<script setup lang="ts">
/** Home: the orders standing on shelves in the order they are due, all to one scale. */
import { computed, defineAsyncComponent, onMounted, onUnmounted, ref } from "vue";
import { useRouter } from "vue-router";
import { answered, api, fieldWordsOf, Refused } from "@/api/client";
import { nextWords } from "./next";
import type { Card, Document, NextSteps } from "@/api/types";
import { momentCode } from "@/base/time";
import { useElementSize } from "@/base/size";
import { useHandbook } from "@/kitchen/handbook";
import { useNotices } from "@/kitchen/notices";
import { useSettings } from "@/kitchen/settings";
import { useAsked } from "@/order/asked";
import { useOpened } from "@/ui/opened";
import UnitsMenu from "@/ui/UnitsMenu.vue";
import { GAP, setOut } from "./setOut";
import ShelfCard from "./ShelfCard.vue";
import ShelfSearch, { type Asking } from "./ShelfSearch.vue";

const router = useRouter();
/** Loaded when it is first asked for: few who look along the shelf need it. */
const FirstCake = defineAsyncComponent(() => import("./FirstCake.vue"));
const WordsDialog = defineAsyncComponent(() => import("@/drawing/WordsDialog.vue"));
const wordsOpen = useOpened().opened("words");
const settings = useSettings();
const handbook = useHandbook();
const cards = ref<Card[] | null>(null);
const archived = ref(false);
const looked = ref<Asking>({ words: "", first: "", last: "" });
const page = ref(1);
const pages = ref(1);
const count = ref(0);
const looking = computed(() => Object.values(looked.value).some((one) => one !== ""));
const trouble = ref("");
/** Why the shelf itself could not be read; what is said of anything else stays while it is read again. */
const away = ref("");
const file = ref<HTMLInputElement>();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);

/** How the orders stand, all to one scale. */
const stood = computed(() => setOut(cards.value ?? [], size.width.value));

/** What is due first from now on, and what it needs before. */
const next = computed(() => nextWords(cards.value ?? [], new Date()));

/** The next work on each order that is due soon; where it cannot be asked for, the shelf stands without it. */
const upcoming = useAsked<NextSteps>({
  ask: async (signal) => {
    const query = { now: momentCode(new Date()) };
    return (await answered(api.GET("/api/week/next", { params: { query }, signal }))) as NextSteps;
  },
  place: () => "shelf",
  old: "",
  unfinished: (found) => found.pending,
});

/** Look along another page, or for something else from the first page on. */
function turnTo(number: number): void {
  trouble.value = "";
  page.value = number;
  void load();
}
function look(asking: Asking): void {
  looked.value = asking;
  turnTo(1);
}

/** What stands on the shelf now; only the newest answer counts. */
let asked = 0;
/** A card that is being drawn is asked for again after so long. */
const SOON_MS = 1500;
let soon = 0;
onUnmounted(() => window.clearTimeout(soon));
async function load(): Promise<void> {
  const mine = (asked += 1);
  window.clearTimeout(soon);
  try {
    const { words, first, last } = looked.value;
    const query = {
      archived: archived.value,
      words,
      first: first || null,
      last: last || null,
      page: page.value,
    };
    const found = await answered(api.GET("/api/orders", { params: { query } }));
    if (mine !== asked) return;
    cards.value = found.orders as Card[];
    [count.value, pages.value] = [found.count, found.pages];
    away.value = "";
    if (page.value > found.pages) turnTo(found.pages);
    if (found.orders.some((card) => card.pending)) soon = window.setTimeout(() => void load(), SOON_MS);
    else if (!archived.value && found.orders.some((card) => card.due)) void upcoming.refresh();
  } catch (error) {
    if (mine !== asked) return;
    away.value =
      error instanceof Refused && error.problem.status < 500
        ? error.problem.detail
        : "The kitchen's server cannot be reached just now. Your orders are safe where they are.";
  }
}

async function add(make: () => Promise<Document>): Promise<void> {
  trouble.value = "";
  try {
    const made = await answered(api.POST("/api/orders", { body: await make() }));
    // Whoever begins the first cake is shown about.
    const query = cards.value?.length === 0 && !archived.value && !looking.value ? { walk: "1" } : {};
    await router.push({ name: "order", params: { id: made.id, lens: "brief" }, query });
  } catch (error) {
    trouble.value = fieldWordsOf(
      error,
      "The order could not be made just now: the kitchen's server cannot be reached.",
    );
  }
}

/** A new order, of a design that was said or chosen, or of one tier. */
const begin = (design?: Document["design"]): Promise<void> =>
  add(async () => (await import("./starter")).starter(settings.length, design));

async function copy(card: Card): Promise<void> {
  trouble.value = "";
  try {
    await answered(api.POST("/api/orders/{id}/duplicate", { params: { path: { id: card.id } } }));
    await load();
  } catch {
    trouble.value = "The copy could not be made just now. Nothing was changed.";
  }
}

async function openFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const chosen = input.files?.[0];
  input.value = "";
  if (!chosen) return;
  const most = handbook.book?.max_file_bytes ?? 0;
  if (chosen.size > most) {
    trouble.value = `${chosen.name} is larger than ${most / 1024} kB, the most that is read. It does not look like a design file.`;
    return;
  }
  try {
    const file = JSON.parse(await chosen.text()) as Document;
    await add(() => Promise.resolve(file));
  } catch {
    trouble.value = `${chosen.name} is not a design file: those are saved from an order with “Save as a file”.`;
  }
}

async function restore(card: Card): Promise<void> {
  trouble.value = "";
  try {
    await answered(api.POST("/api/orders/{id}/restore", { params: { path: { id: card.id } } }));
    await load();
  } catch {
    trouble.value = "The order could not be put back just now. Nothing was changed.";
  }
}

function turn(): void {
  archived.value = !archived.value;
  cards.value = null;
  turnTo(1);
}

useNotices(load, (notice) => notice.what === "order" || notice.what === "kit", 300);
useNotices(upcoming.refresh, (notice) => notice.what === "hours", 300);
onMounted(() => {
  document.title = "Amber Spread";
  void load();
});
</script>

<template>
  <div class="home">
    <header class="bar">
      <span class="brand">Amber <b>Spread</b></span>
      <h1>{{ archived ? "The archive" : "The shelf" }}</h1>
      <span class="grow" />
      <button class="act bare" @click="turn">{{ archived ? "Back to the shelf" : "Archive" }}</button>
      <RouterLink class="act bare" :to="{ name: 'pantry' }">Recipes and prices</RouterLink>
      <RouterLink class="act bare" :to="{ name: 'week' }">The week</RouterLink>
      <RouterLink class="act bare" :to="{ name: 'usual' }">Our usual</RouterLink>
      <button class="act bare" @click="file?.click()">Open a file</button>
      <input
        ref="file"
        class="unseen"
        type="file"
        accept=".json,application/json"
        aria-label="Open a design file"
        tabindex="-1"
        @change="openFile"
      />
      <button
        class="act bare"
        aria-label="Words of the trade"
        title="Words of the trade"
        @click="wordsOpen = true"
      >
        ?
      </button>
      <UnitsMenu />
      <button class="act main" @click="begin()">New cake</button>
    </header>
    <main ref="frame" class="room">
      <p v-if="trouble" class="banner" role="alert">
        {{ trouble }} <button class="act" @click="trouble = ''">Read</button>
      </p>
      <p v-else-if="away" class="banner" role="alert">
        {{ away }} <button class="act" @click="load">Try again</button>
      </p>
      <p v-if="next && !looking && !archived" class="next" role="note">
        Next, {{ next.when }}:
        <RouterLink :to="{ name: 'order', params: { id: next.id, lens: next.about } }">{{
          next.title
        }}</RouterLink>{{ next.does }}
      </p>
      <ShelfSearch v-if="looking || pages > 1 || count > 12" :count="count" :asked="looked" @look="look" />
      <p v-if="cards === null && !away" class="empty">Looking along the shelf …</p>
      <div v-else-if="cards?.length === 0" class="empty">
        <template v-if="looking">
          <h2>No order is like that</h2>
          <p>Look for other words of its title, or between other days.</p>
          <button class="act" @click="look({ words: '', first: '', last: '' })">Show them all</button>
        </template>
        <template v-else-if="archived">
          <h2>Nothing is in the archive</h2>
          <p>An order leaves the shelf from its own menu, and can be put back from here.</p>
        </template>
        <template v-else>
          <h2>The shelf is empty</h2>
          <p>Start with the tin in your hand. Heights, coats, rolls and bowls follow as you type.</p>
          <FirstCake @begin="begin" />
          <button class="act" @click="begin()">New cake from nothing</button>
        </template>
      </div>
      <ul
        v-for="(row, index) in stood"
        :key="index"
        class="shelf"
        :style="{ '--stand': `${row.high}px`, '--apart': `${GAP}px` }"
      >
        <ShelfCard
          v-for="one in row.cards"
          :key="one.card.id"
          :stands="one"
          :archived="archived"
          :next="upcoming.found.value?.steps[one.card.id]"
          @copy="copy(one.card)"
          @restore="restore(one.card)"
        />
      </ul>
      <nav v-if="pages > 1" class="pages" aria-label="Pages of the shelf">
        <button class="act" :disabled="page === 1" @click="turnTo(page - 1)">Earlier</button>
        <span>Page {{ page }} of {{ pages }}</span>
        <button class="act" :disabled="page === pages" @click="turnTo(page + 1)">Later</button>
      </nav>
    </main>
    <WordsDialog v-if="wordsOpen" />
  </div>
</template>

<style scoped>
.next a {
  color: var(--amber);
  font-weight: 600;
}

/* The day of the first shelf is written in the space below it. */
.next {
  margin: 0 0 44px;
  padding: 10px 14px;
  border-left: 4px solid var(--amber-line);
  background: var(--panel);
}

.room {
  position: relative;
  overflow: hidden auto;
  padding: 30px 40px;
}

.shelf {
  position: relative;
  display: flex;
  gap: var(--apart);
  margin: 26px 0 30px;
  padding: 0;
  list-style: none;
}

/* The board the cakes stand on. */
.shelf::after {
  content: "";
  position: absolute;
  top: var(--stand);
  right: -40px;
  left: -40px;
  height: 10px;
  background: var(--wood);
}

.pages {
  display: flex;
  gap: 16px;
  align-items: center;
  justify-content: center;
}

.banner {
  margin-bottom: 18px;
  padding: 10px 14px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}

.empty {
  display: grid;
  gap: 14px;
  justify-items: start;
  max-width: 720px;
  margin: 5vh auto;
}

.empty h2 {
  font-size: 30px;
}
</style>
