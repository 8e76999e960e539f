<script setup lang="ts">
/** The next step, the next tier to leave the fridge, when you can go home, the step you selected, your working hours. */
import { computed, onBeforeUnmount, onMounted, watch } from "vue";
import { timeOfDay } from "@/base/amount";
import { dayCode, dueWords, hourWords, weekdayWords } from "@/base/time";
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
import FoldedPart from "@/ui/FoldedPart.vue";
import FractionText from "@/ui/FractionText.vue";
import ClockStep from "./ClockStep.vue";
import { PLACES } from "@/order/placeWords";

const order = useOrder();
const clock = useClock();
const { takePrinted } = usePapers();
const found = computed(() => clock.clock);
const usual = usePractice();
const kitchen = usePlaces();
const habitsOf = (room: string) => usual.habits.filter((habit) => habit.room === room);

const past = (iso: string): boolean => new Date(iso) <= clock.now;
/** What hands are on now; between two steps, what comes next. */
const inHand = computed(() => clock.work.find(([, step]) => past(step.start) && !past(step.end)));
const next = computed(() => clock.work.find(([, step]) => !past(step.start)));
const first = computed(() => inHand.value ?? next.value);
const outOfCold = computed(
  () =>
    clock.steps
      .filter(([, step]) => (step.place === "fridge" || step.place === "freezer") && !past(step.end))
      .sort(([, one], [, other]) => one.end.localeCompare(other.end))[0],
);
/** When the last work of that day is done: today's, or that of the day on which it begins. */
const home = computed(() => {
  const from = first.value?.[1].start;
  if (!from) return undefined;
  const day = from.slice(0, 10);
  return clock.work
    .map(([, step]) => step.end)
    .filter((end) => end.slice(0, 10) === day)
    .sort()
    .at(-1);
});
const minutes = computed(() => Math.round(found.value?.hands_on.value ?? 0));
const priced = computed(() => order.document?.minutes === minutes.value);

/** When each pair of hands works on the day of the first step, or of the next. */
const today = computed(() => {
  const date = new Date(first.value?.[1].start ?? found.value?.due ?? 0);
  const weekday = (date.getDay() + 6) % 7;
  return (kitchen.places?.hands ?? []).map((hands, index) => {
    const day = hands.off.includes(dayCode(date)) ? null : hands.week[weekday];
    const hours = day ? `${timeOfDay(day.begins_min)} to ${timeOfDay(day.ends_min)}` : "off";
    return [handsName(hands, index), `${weekdayWords(date)} ${hours}`] as const;
  });
});

const LOOKS = [
  ["warm", "warm"],
  ["soft", "soft"],
  ["cold", "cold"],
  ["firm", "coat firm"],
  ["covered", "covered, whole"],
] as const;
let stop = (): void => undefined;
onMounted(() => {
  stop = clock.keepTime();
  void usual.open();
  void kitchen.open();
});
onBeforeUnmount(() => stop());
/** The hours of an order depend on those of the others. */
useNotices(
  () => void clock.refresh(),
  (notice) => notice.what === "order" && notice.id !== order.id,
  1000,
);
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
      <div class="now" role="status">
        <span class="what">{{ inHand ? "Now" : "Next" }}</span>
        <strong v-if="first" class="big">{{ hourWords(first[1].start, clock.now) }}</strong>
        <button v-if="first" class="name" @click="clock.selected = first[0]">{{ first[1].name }}</button>
        <span v-else class="name">Everything is done</span>
      </div>
      <p v-if="outOfCold" class="line">
        <button @click="clock.selected = outOfCold[0]">
          Next out of the {{ outOfCold[1].place }}: {{ outOfCold[1].of || "the cake" }}
        </button>
        <b class="number">{{ hourWords(outOfCold[1].end, clock.now) }}</b>
      </p>
      <p v-if="home" class="line">
        Home at <b class="number home">{{ hourWords(home, clock.now) }}</b>
      </p>
      <LensNotes subject="clock" :checks="found.checks" />
      <ClockStep v-if="clock.chosen" :step="clock.chosen" :now="clock.now" />
      <h3>The work</h3>
      <p class="line">
        Begin <b class="number">{{ hourWords(found.begins, clock.now) }}</b>
      </p>
      <p class="line">
        Ready <b class="number">{{ hourWords(found.ready, clock.now) }}</b>
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
      <RouterLink class="act wide link" :to="{ name: 'places' }">Change hands and places</RouterLink>
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
          <li v-for="[id, step] in clock.steps" :key="id">
            <button :class="{ wait: step.wait }" @click="clock.selected = id">
              <FractionText :text="`${hourWords(step.start, clock.now)} ${step.name}`" />
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
.now {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  margin: 10px -20px 0;
  padding: 8px 20px 12px;
  background: var(--tint);
}

.what {
  font-size: 18px;
}

.big {
  font: 600 36px/1.1 var(--serif);
  letter-spacing: -0.02em;
}

.name {
  grid-column: 1 / -1;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  font: 600 21px var(--serif);
  text-align: left;
  cursor: pointer;
}

.line button,
.all button {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}

.line button:hover,
.all button:hover,
.name:hover {
  text-decoration: underline;
}

.home {
  color: var(--amber);
}

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
