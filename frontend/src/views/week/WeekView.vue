<script setup lang="ts">
/** The week: every order by the hour, on the hands and in the places of the kitchen. */
import { computed, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { dayWords, hourWords } from "@/base/time";
import DaySheet from "@/drawing/DaySheet.vue";
import { useNotices } from "@/kitchen/notices";
import { handsName, usePlaces } from "@/kitchen/places";
import { useWeek } from "@/order/week";
import { weekSheet } from "./sheet";
import WeekPanel from "./WeekPanel.vue";

const TICK_MS = 20_000;
const week = useWeek();
const kitchen = usePlaces();
const now = ref(new Date());
const hands = computed(() => (kitchen.places?.hands ?? []).map(handsName));
const sheet = computed(() =>
  week.week && hands.value.length
    ? weekSheet(week.steps, hands.value, (iso) => hourWords(iso, now.value))
    : null,
);
const begins = computed(() => dayWords(new Date(`${week.first}T12:00`)));
let timer: ReturnType<typeof setInterval> | undefined;

useNotices(week.refresh, (notice) => notice.what !== "practice", 300);
watch(
  () => kitchen.shown,
  () => void week.refresh(),
);
onMounted(() => {
  document.title = "The week · Amber Spread";
  timer = setInterval(() => (now.value = new Date()), TICK_MS);
  void kitchen.open();
});
onBeforeUnmount(() => clearInterval(timer));
</script>

<template>
  <div class="home">
    <header class="bar">
      <RouterLink to="/" class="brand" aria-label="Amber Spread: back to the shelf"
        >Amber <b>Spread</b></RouterLink
      >
      <h1>The week</h1>
      <label class="from">
        from
        <input
          type="date"
          aria-label="Seven days from"
          :value="week.first"
          min="1971-01-01"
          max="2199-12-31"
          @change="week.from(($event.target as HTMLInputElement).value)"
        />
      </label>
      <span class="grow" />
      <button class="act bare" @click="week.turn(-1)">Earlier</button>
      <button class="act bare" @click="week.turn(1)">Later</button>
      <RouterLink class="act bare link" :to="{ name: 'places' }">Hands and places</RouterLink>
      <RouterLink class="act link" to="/">Back to the shelf</RouterLink>
    </header>
    <main class="both" :aria-busy="week.busy">
      <DaySheet
        :sheet="sheet"
        :now="now"
        :selected="week.selected"
        label="The steps of the week by the hour. Up and down select a step."
        drawing="The week by the hour"
        @select="(id) => (week.selected = id)"
        @move="week.move"
      >
        <p v-if="week.trouble" class="trouble" role="alert">{{ week.trouble }}</p>
        <p v-else-if="!week.week" class="empty" role="status">
          {{ week.awaited || "Working out the week …" }}
        </p>
        <p v-else-if="!week.week.orders.length" class="empty">
          No order is due in the seven days from {{ begins }}. An order stands here as soon as it has a due
          hour.
        </p>
      </DaySheet>
      <WeekPanel v-if="week.week" :now="now" :hands="hands" />
    </main>
  </div>
</template>

<style scoped>
.home {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}

.grow {
  flex: 1;
}

.from {
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--soft);
}

.from input {
  min-height: 44px;
  padding: 0 8px;
  border: 1px solid var(--edge);
  background: var(--panel);
  font: inherit;
}

.link {
  display: inline-grid;
  place-content: center;
  text-decoration: none;
}

.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  min-height: 0;
}

@media (max-width: 1100px) {
  .both {
    grid-template-columns: minmax(0, 1fr) 300px;
  }
}

@media (max-width: 900px) {
  .both {
    grid-template-rows: minmax(0, 1fr) minmax(0, 42%);
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
