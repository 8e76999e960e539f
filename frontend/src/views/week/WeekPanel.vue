<script setup lang="ts">
/** What each pair of hands does now or next, what leaves the cold next, when everybody goes home, and the orders. */
import { computed } from "vue";
import { hourWords, momentCode } from "@/base/time";
import { useSettings } from "@/kitchen/settings";
import FromNow from "@/drawing/FromNow.vue";
import StepMarks from "@/drawing/StepMarks.vue";
import { placeWords } from "@/order/placeWords";
import { nextOutOfCold, upNext } from "@/order/upNext";
import { DAYS, useWeek } from "@/order/week";
import CheckNote from "@/ui/CheckNote.vue";
import UpNextBand from "@/ui/UpNextBand.vue";
import BetterHours from "./BetterHours.vue";
import { letterOf } from "./sheet";

const props = defineProps<{ now: Date; hands: readonly string[] }>();
const week = useWeek();
const settings = useSettings();
const orders = computed(() => week.week?.orders ?? []);
const works = computed(() => week.steps.filter(({ step }) => step.minutes !== null));

/** Of each pair of hands: what it does now or next, and when it is done on that day. */
const each = computed(() =>
  props.hands.map((name, index) => {
    const mine = works.value.filter(({ step }) => step.hand === index + 1);
    return { name, ...upNext(mine, props.now) };
  }),
);
const outOfCold = computed(() => nextOutOfCold(week.steps, props.now));
/** The day sheets and the calendar of each pair of hands, or of all; hours as they are when they are asked for. */
const sheets = computed(() => {
  const file = (kind: string, hand?: number): string => {
    const asked = { first: week.first, days: `${DAYS}`, now: momentCode(props.now), paper: settings.paper };
    const query = new URLSearchParams({ ...asked, ...(hand && { hand: `${hand}` }) }).toString();
    return `/api/week/days.${kind}?${query}`;
  };
  const own = props.hands.map((name, index) => [name, index + 1] as const);
  return [...(own.length > 1 ? own : []), ["Everybody", undefined] as const].map(([words, hand]) => ({
    words,
    pdf: file("pdf", hand),
    ics: file("ics", hand),
  }));
});
const pending = computed(() => (week.week?.pending ?? []).map((title) => `“${title}”`));
const said = computed(() => orders.value.filter((order) => order.checks.length || order.from_now));
</script>

<template>
  <aside class="panel" aria-label="The week in words">
    <section v-if="week.chosen" class="step" aria-label="The step selected">
      <h2>{{ week.chosen.step.name }}</h2>
      <p>{{ letterOf(week.chosen.lane) }} {{ week.chosen.order.title }}</p>
      <p>
        {{ placeWords(week.chosen.step)
        }}<template v-if="week.chosen.step.whose">, {{ week.chosen.step.whose }}</template>
      </p>
      <p>
        <b class="number"
          >{{ hourWords(week.chosen.step.start, now) }} to {{ hourWords(week.chosen.step.end, now) }}</b
        >
      </p>
      <StepMarks
        :id="week.chosen.name"
        :key="week.chosen.id"
        :order="week.chosen.order.id"
        :step="week.chosen.step"
        :works="week.chosen.step.minutes !== null"
        :now="now"
        @changed="week.refresh()"
      />
      <RouterLink :to="{ name: 'order', params: { id: week.chosen.order.id, lens: 'clock' } }" class="act">
        Open its clock
      </RouterLink>
      <button class="act bare" @click="week.selected = ''">Close</button>
    </section>
    <UpNextBand
      v-for="(one, index) in each"
      :key="index"
      :whose="hands.length > 1 ? one.name : ''"
      :name="one.first && `${letterOf(one.first.lane)} ${one.first.step.name}`"
      :start="one.first?.step.start"
      :under-way="one.underWay"
      :home="one.home"
      :now="now"
      @select="week.selected = one.first?.id ?? ''"
    />
    <p v-if="outOfCold" class="line">
      <button @click="week.selected = outOfCold.id">
        Next out of the {{ outOfCold.step.place }}: {{ letterOf(outOfCold.lane) }}
        {{ outOfCold.step.of || outOfCold.order.title }}
      </button>
      <b class="number">{{ hourWords(outOfCold.step.end, now) }}</b>
    </p>
    <section v-for="order in said" :key="order.id" class="said">
      <h3>{{ order.title }}</h3>
      <CheckNote v-for="check in order.checks" :key="`${check.code} ${check.text}`" :check="check" />
      <FromNow
        :order="order.id"
        :checks="order.checks"
        :from-now="order.from_now"
        :now="now"
        @changed="week.refresh()"
      />
    </section>
    <p v-if="pending.length" class="left" role="status">
      {{ pending.join(", ") }}: still being worked out, so these hours may move.
    </p>
    <p v-for="words in week.week?.left_out" :key="words" class="left">{{ words }}</p>
    <BetterHours v-if="orders.length" :now="now" />
    <section v-if="orders.length" class="papers" aria-label="On paper">
      <h3>On paper</h3>
      <p v-for="one in sheets" :key="one.words" class="line">
        <span>{{ one.words }}</span>
        <a class="act" :href="one.pdf" :aria-label="`Day sheets, ${one.words} (PDF)`">Day sheets</a>
        <a class="act" :href="one.ics" :aria-label="`Calendar, ${one.words} (ICS)`">Calendar</a>
      </p>
    </section>
    <h3 v-if="orders.length">Orders</h3>
    <ol v-if="orders.length" class="orders">
      <li v-for="(order, lane) in orders" :key="order.id">
        <span class="letter">{{ letterOf(lane) }}</span>
        <RouterLink :to="{ name: 'order', params: { id: order.id, lens: 'clock' } }">{{
          order.title
        }}</RouterLink>
        <span class="hours">
          begin {{ hourWords(order.begins, now) }}, due {{ hourWords(order.due, now) }}
        </span>
      </li>
    </ol>
    <p class="soft">
      These hours are a plan. Go by the sign of each wait, by your recipe for the oven, and by your local food
      code for time out of the fridge.
    </p>
  </aside>
</template>

<style scoped>
.papers .line {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
}

.panel {
  overflow: hidden auto;
  padding: 0 20px 30px;
  border-left: 1px solid var(--rule);
  background: var(--panel);
}

h2,
h3 {
  margin: 14px 0 2px;
  font: 600 20px/1.2 var(--serif);
}

.step {
  margin: 0 -20px;
  padding: 2px 20px 10px;
  border-left: 4px solid var(--amber-line);
  background: var(--paper);
}

.number {
  font-size: 18px;
}

.orders {
  margin: 0;
  padding: 0;
  list-style: none;
}

.orders li {
  display: grid;
  grid-template-columns: 30px 1fr;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}

.orders a {
  color: var(--ink);
  font-weight: 600;
}

.letter {
  font: 600 20px var(--serif);
}

.hours {
  grid-column: 2;
  color: var(--soft);
}

.left,
.soft {
  margin-top: 10px;
  color: var(--soft);
}
</style>
