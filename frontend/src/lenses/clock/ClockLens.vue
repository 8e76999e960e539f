<script setup lang="ts">
/** The next step, the next tier to leave the fridge, when you can go home, the step you selected, your working hours. */
import { computed, onMounted, watch } from "vue";
import { timeOfDay } from "@/base/amount";
import { useEvery, useNow } from "@/base/now";
import { dayCode, dueWords, hourWords, weekdayWords } from "@/base/time";
import FromNow from "@/drawing/FromNow.vue";
import { useNotices } from "@/kitchen/notices";
import { handsName, usePlaces } from "@/kitchen/places";
import { usePractice } from "@/kitchen/practice";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import PracticeFields from "@/lenses/parts/PracticeFields.vue";
import TravelFields from "@/lenses/parts/TravelFields.vue";
import { useClock } from "@/order/clock";
import { useOrder } from "@/order/order";
import { usePapers } from "@/order/papers";
import { PLACES } from "@/order/placeWords";
import { nextOutOfCold, upNext } from "@/order/upNext";
import FoldedPart from "@/ui/FoldedPart.vue";
import FractionText from "@/ui/FractionText.vue";
import UpNextBand from "@/ui/UpNextBand.vue";
import ClockStep from "./ClockStep.vue";
import WhatGives from "./WhatGives.vue";

const order = useOrder();
const clock = useClock();
const { takePrinted } = usePapers();
const found = computed(() => clock.clock);
const usual = usePractice();
const kitchen = usePlaces();
const habitsOf = (room: string) => usual.habits.filter((habit) => habit.room === room);

const now = useNow();
const next = computed(() => upNext(clock.work, now.value));
const outOfCold = computed(() => nextOutOfCold(clock.steps, now.value));
const minutes = computed(() => Math.round(found.value?.hands_on.value ?? 0));
const priced = computed(() => order.document?.minutes === minutes.value);

/** When each pair of hands works on the day of the first step, or of the next. */
const today = computed(() => {
  const date = new Date(next.value.first?.step.start ?? found.value?.due ?? 0);
  const weekday = (date.getDay() + 6) % 7;
  return (kitchen.places?.hands ?? []).map((hands, index) => {
    const day = hands.off.includes(dayCode(date)) ? null : hands.week[weekday];
    const hours = day ? `${timeOfDay(day.begins_min)} to ${timeOfDay(day.ends_min)}` : "off";
    return [handsName(hands, index), `${weekdayWords(date)} ${hours}`] as const;
  });
});

const REFRESH_MS = 300_000;
const LOOKS = [
  ["warm", "warm"],
  ["soft", "soft"],
  ["cold", "cold"],
  ["firm", "coat firm"],
  ["covered", "covered, whole"],
] as const;
onMounted(() => {
  void usual.open();
  void kitchen.open();
});
/** The hours of an order depend on those of the others. */
useNotices(
  () => void clock.refresh(),
  (notice) => notice.what === "hours" || (notice.what === "order" && notice.id !== order.id),
  1000,
);
/** Hours that follow from marks move on with the hour on the wall. */
useEvery(REFRESH_MS, () => void clock.refresh());
watch([() => order.plan, () => order.document?.due, () => kitchen.shown], () => void clock.refresh(), {
  immediate: true,
});
</script>

<template>
  <section :aria-busy="clock.busy">
    <LensHead words="Clock" whole :detail="dueWords(order.document?.due)" />
    <p v-if="!order.document?.due" class="soft">
      Set the day and hour it is due. Then you see when to do each step, from the batter to the drive, within
      your working hours.
    </p>
    <template v-if="found">
      <UpNextBand
        role="status"
        whose=""
        :name="next.first?.step.name"
        :start="next.first?.step.start"
        :under-way="next.underWay"
        :home="next.home"
        :now="now"
        @select="clock.selected = next.first?.id ?? ''"
      />
      <p v-if="outOfCold" class="line">
        <button @click="clock.selected = outOfCold.id">
          Next out of the {{ outOfCold.step.place }}: {{ outOfCold.step.of || "the cake" }}
        </button>
        <b class="number">{{ hourWords(outOfCold.step.end, now) }}</b>
      </p>
      <LensNotes subject="clock" :checks="found.checks" />
      <FromNow
        v-if="order.id"
        :order="order.id"
        :checks="found.checks"
        :from-now="found.from_now"
        :now="now"
        @changed="clock.refresh()"
      />
      <WhatGives :checks="found.checks" />
      <ClockStep v-if="clock.chosen" :step="clock.chosen" :now="now" />
      <h3>The work</h3>
      <p class="line">
        Begin <b class="number">{{ hourWords(found.begins, now) }}</b>
      </p>
      <p class="line">
        Ready <b class="number">{{ hourWords(found.ready, now) }}</b>
      </p>
      <FigureRow label="Hands-on time" :figure="found.hands_on" />
      <FigureRow label="Give or take" :figure="found.give_or_take" />
      <p class="soft">Without the waits. The minutes are from memory; you may be faster or slower.</p>
      <button
        class="act wide"
        :disabled="priced"
        @click="order.edit((draft) => void (draft.minutes = minutes))"
      >
        {{ priced ? "The price counts these minutes" : "Count these minutes in the price" }}
      </button>
      <h3>Hours</h3>
      <p v-for="[name, hours] in today" :key="name" class="line">
        <span>{{ name }}</span> <b class="number">{{ hours }}</b>
      </p>
      <RouterLink class="act wide" :to="{ name: 'places' }">Change hands and places</RouterLink>
      <div class="rows">
        <PracticeFields :habits="habitsOf('Clock')" />
      </div>
      <TravelFields />
      <h3>Heat and cold</h3>
      <div class="rows">
        <PracticeFields :habits="habitsOf('Heat')" />
      </div>
      <div class="same">
        <button class="act main" @click="takePrinted('days.pdf')">Print the day sheet (PDF)</button>
        <button class="act" @click="takePrinted('days.ics')">Put it in a calendar (ICS)</button>
      </div>
      <FoldedPart name="Every step in order" :says="`${clock.steps.length} steps`" :open="false">
        <ol class="all">
          <li v-for="{ id, step } in clock.steps" :key="id">
            <button :class="{ wait: step.wait }" @click="clock.selected = id">
              <FractionText :text="`${hourWords(step.start, now)} ${step.name}`" />
              <span class="soft">{{ step.wait ? PLACES[step.place] : "" }}</span>
            </button>
          </li>
        </ol>
      </FoldedPart>
      <ul class="legend" aria-label="How to read the drawing">
        <li v-for="[look, words] in LOOKS" :key="look">
          <svg :class="look" width="18" height="18" aria-hidden="true"><rect width="18" height="18" /></svg>
          {{ words }}
        </li>
        <li>
          <svg width="6" height="18" aria-hidden="true"><path d="M3 0V18" class="inked" /></svg>hands on it
        </li>
      </ul>
      <LensNotes subject="clock" cautions :checks="found.checks" />
    </template>
  </section>
</template>

<style scoped>
.wide {
  width: 100%;
  margin: 6px 0 4px;
}

.all {
  margin: 0;
  padding: 0;
  list-style: none;
}

.all button {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  width: 100%;
  border-bottom: 1px solid var(--rule);
}

.all .wait {
  color: var(--soft);
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  margin-top: 14px;
}

.legend li {
  display: flex;
  gap: 6px;
  align-items: center;
}

.legend rect {
  stroke: var(--soft);
  stroke-width: 1;
}
</style>

<style scoped src="@/drawing/looks.css"></style>
