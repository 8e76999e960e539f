<script setup lang="ts">
/** What hands do now, what comes out of the cold next, when to go home; the step selected; and the hours it is planned for. */
import { computed, onBeforeUnmount, onMounted, watch } from "vue";
import type { TimedStep } from "@/api/types";
import { dayWords, clockWords } from "@/base/time";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import { useClock } from "@/order/clock";
import { useOrder } from "@/order/order";
import { usePapers } from "@/order/papers";
import CheckNote from "@/ui/CheckNote.vue";
import FoldedPart from "@/ui/FoldedPart.vue";
import FractionText from "@/ui/FractionText.vue";
import MeasureField from "@/ui/MeasureField.vue";
import ClockStep from "./ClockStep.vue";
import { hourWords, named, PLACES } from "./words";

const order = useOrder();
const clock = useClock();
const { takePrinted } = usePapers();
const found = computed(() => clock.clock);
const detail = computed(() => {
  if (!order.document?.due) return "No due hour yet";
  const due = new Date(order.document.due);
  return `Due ${dayWords(due)}, ${clockWords(due)}`;
});

const past = (iso: string): boolean => new Date(iso) <= clock.now;
/** What hands are on now; between two steps, what comes next. */
const inHand = computed(() => clock.work.find(([, step]) => past(step.start) && !past(step.end)));
const next = computed(() => clock.work.find(([, step]) => !past(step.start)));
const first = computed(() => inHand.value ?? next.value);
const outOfCold = computed(
  () =>
    clock.steps
      .filter(([, step]) => step.place === "fridge" && !past(step.end))
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

const FIELDS = [
  { name: "hands", words: "Pairs of hands", limit: "hands" },
  { name: "day_begins_min", words: "Work begins at", limit: "time_of_day" },
  { name: "day_ends_min", words: "Work ends at", limit: "time_of_day" },
  { name: "ready_before_min", words: "Ready before it is due", limit: "ready_before_min" },
] as const;
const LOOKS = [
  ["warm", "warm"],
  ["soft", "soft"],
  ["cold", "cold"],
  ["firm", "coat firm"],
  ["covered", "covered, whole"],
] as const;
const drive = computed(() => order.document?.design.stacking?.travels !== false);

function set(name: (typeof FIELDS)[number]["name"], value: number | null): void {
  if (value !== null) order.edit((draft) => void (draft.practice[name] = value));
}

const lineOf = (step: TimedStep): string => `${hourWords(step.start, clock.now)} ${named(step)}`;

let stop = (): void => undefined;
onMounted(() => (stop = clock.keepTime()));
onBeforeUnmount(() => stop());
watch([() => order.plan, () => order.document?.due], () => void clock.refresh(), { immediate: true });
</script>

<template>
  <section :aria-busy="clock.busy">
    <LensHead words="Clock" whole :detail="detail" />
    <p v-if="!order.document?.due" class="soft">
      Set the day and hour it is due, and this says when to do what: from the batter to the drive, counted
      back within your working hours.
    </p>
    <template v-if="found">
      <div class="now" role="status">
        <span class="what">{{ inHand ? "Now" : "Next" }}</span>
        <strong v-if="first" class="big">{{ hourWords(first[1].start, clock.now) }}</strong>
        <button v-if="first" class="name" @click="clock.selected = first[0]">{{ named(first[1]) }}</button>
        <span v-else class="name">Everything is done</span>
      </div>
      <p v-if="outOfCold" class="line">
        <button @click="clock.selected = outOfCold[0]">
          Next out of the cold: {{ outOfCold[1].of || "the cake" }}
        </button>
        <b class="number">{{ hourWords(outOfCold[1].end, clock.now) }}</b>
      </p>
      <p v-if="home" class="line">
        Home at <b class="number home">{{ hourWords(home, clock.now) }}</b>
      </p>
      <CheckNote
        v-for="check in found.checks"
        :key="`${check.code} ${check.text}`"
        :check="check"
        class="check"
      />
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
      <p class="soft">
        Waits are not in it. The minutes are a start, from memory: correct a step that takes you longer.
      </p>
      <button
        class="act wide"
        :disabled="priced"
        @click="order.edit((draft) => void (draft.minutes = minutes))"
      >
        {{ priced ? "The price counts these minutes" : "Count these minutes in the price" }}
      </button>
      <h3>Hours</h3>
      <div class="rows">
        <MeasureField
          v-for="field in FIELDS"
          :key="field.name"
          :label="field.words"
          :limit="field.limit"
          :value="order.document?.practice[field.name]"
          :pointer="`#/practice/${field.name}`"
          @change="(value) => set(field.name, value)"
        />
        <MeasureField
          v-if="drive"
          label="The drive takes"
          limit="minutes"
          :value="order.document?.design.stacking?.drive_min"
          optional="not set"
          pointer="#/design/stacking/drive_min"
          @change="(value) => order.edit((draft) => void (draft.design.stacking.drive_min = value))"
        />
      </div>
      <div class="same">
        <button class="act main" @click="takePrinted('days.pdf')">Print the day sheet (PDF)</button>
      </div>
      <FoldedPart name="Every step in order" :says="`${clock.steps.length} steps`" :open="false">
        <ol class="all">
          <li v-for="[id, step] in clock.steps" :key="id">
            <button :class="{ wait: step.wait }" @click="clock.selected = id">
              <FractionText :text="lineOf(step)" />
              <span class="soft">{{ step.wait ? PLACES[step.place] : "" }}</span>
            </button>
          </li>
        </ol>
      </FoldedPart>
      <ul class="legend" aria-label="How to read the drawing">
        <li v-for="[look, words] in LOOKS" :key="look"><i :class="look" />{{ words }}</li>
        <li><i class="hands" />hands on it</li>
      </ul>
      <p class="caution">
        <strong>Caution.</strong> Hours are for planning. How long food may stand out of the fridge your local
        food code says, and settings of the oven your recipe.
      </p>
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

.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 46px;
  border-bottom: 1px solid var(--rule);
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

.check {
  margin-top: 10px;
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

.legend i {
  width: 18px;
  height: 18px;
  border: 1px solid var(--soft);
}

.warm {
  background: #e3a04e;
}

.legend .soft {
  background: radial-gradient(circle at 5px 5px, #a9762f 1.2px, transparent 1.6px) 0 0 / 7px 7px #f0d6a0;
}

.cold {
  background: repeating-linear-gradient(#a9c8cc 0 4px, #6d9aa0 4px 5px);
}

.firm {
  background: #d3e2df;
}

.covered {
  background: #ecd0c9;
}

.legend .hands {
  width: 5px;
  border: 0;
  background: var(--ink);
}

.caution {
  margin-top: 14px;
  padding: 8px 12px;
  border-left: 4px solid var(--teal);
  background: var(--paper);
}
</style>
