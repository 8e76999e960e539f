<script setup lang="ts">
/** The week: every order by the hour, on the hands and in the places of the kitchen. */
import { computed, onMounted, watch } from "vue";
import { useEvery, useNow } from "@/base/now";
import { dayWords, hourWords, momentCode } from "@/base/time";
import DaySheet from "@/drawing/DaySheet.vue";
import { useNotices } from "@/kitchen/notices";
import { handsName, usePlaces } from "@/kitchen/places";
import { useMarks } from "@/order/marks";
import { useWeek } from "@/order/week";
import PageFrame from "@/ui/PageFrame.vue";
import { weekSheet } from "./sheet";
import WeekPanel from "./WeekPanel.vue";

const REFRESH_MS = 300_000;
const week = useWeek();
const kitchen = usePlaces();
const now = useNow();
const hands = computed(() => (kitchen.places?.hands ?? []).map(handsName));
const sheet = computed(() =>
  week.week && hands.value.length
    ? weekSheet(week.steps, hands.value, (iso) => hourWords(iso, now.value))
    : null,
);
const marks = useMarks();
const wanted = computed(() => (marks.tried?.of === week.selected ? marks.tried.start : undefined));

function reschedule(id: string, start: Date): void {
  const found = week.steps.find((one) => one.id === id);
  week.selected = id;
  if (found)
    void marks.tryAt({ order: found.order.id, step: found.name, noted: found.step.noted }, momentCode(start));
}

const begins = computed(() => dayWords(new Date(`${week.first}T12:00`)));

useNotices(week.refresh, (notice) => notice.what !== "practice", 300);
watch(
  () => kitchen.shown,
  () => void week.refresh(),
);
useEvery(REFRESH_MS, () => void week.refresh());
onMounted(() => void kitchen.open());
</script>

<template>
  <PageFrame title="The week">
    <template #beside>
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
    </template>
    <template #acts>
      <button class="act bare" @click="week.turn(-1)">Earlier</button>
      <button class="act bare" @click="week.turn(1)">Later</button>
      <RouterLink class="act bare" :to="{ name: 'places' }">Hands and places</RouterLink>
    </template>
    <main class="both" :aria-busy="week.busy">
      <DaySheet
        :sheet="sheet"
        :now="now"
        :selected="week.selected"
        label="The steps of the week by the hour. Up and down select a step, with Alt they move it by 15 minutes."
        drawing="The week by the hour"
        :wanted="wanted"
        @select="(id) => (week.selected = id)"
        @move="week.move"
        @reschedule="reschedule"
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
  </PageFrame>
</template>

<style scoped>
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
