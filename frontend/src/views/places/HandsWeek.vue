<script setup lang="ts">
/** One pair of hands: its name, the hours of each day of its week drawn by the hour, and the days it has off. */
import { computed, ref } from "vue";
import { dayCode, dayWords } from "@/base/time";
import { useHandbook } from "@/kitchen/handbook";
import { DAYS, type Hands, handsName, usePlaces, type WorkingDay } from "@/kitchen/places";
import MeasureField from "@/ui/MeasureField.vue";
import TextField from "@/ui/TextField.vue";

const props = defineProps<{ hands: Hands; index: number; alone: boolean }>();
const DAY_MIN = 1440;
const TALL = 96;
const kitchen = usePlaces();
const handbook = useHandbook();
/** The hours of a day where none are set. */
const usual = computed(() => handbook.book?.places.hands[0]?.week[0]);
const dayOff = ref("");
const wrongDay = ref("");
const name = computed(() => handsName(props.hands, props.index));
const free = computed(() => [...props.hands.off].sort());
const pointer = computed(() => `#/places/hands/${props.index}`);

function change(how: (hands: Hands) => void): void {
  void kitchen.change((kept) => {
    const mine = kept.hands[props.index];
    if (mine) how(mine);
  });
}

/** A day that was free works the hours of the first day that is not. */
function works(day: number, on: boolean): void {
  change((hands) => {
    const hours = hands.week.find((one) => one) ?? usual.value;
    hands.week[day] = on && hours ? { ...hours } : null;
  });
}

function setHour(day: number, field: keyof WorkingDay, value: number | null): void {
  if (value === null) return;
  change((hands) => {
    const one = hands.week[day];
    if (one) one[field] = value;
  });
}

/** Every working day as the first of them. */
function alike(): void {
  change((hands) => {
    const first = hands.week.find((one) => one);
    if (first) hands.week = hands.week.map((one) => (one ? { ...first } : null));
  });
}

const differ = computed(() => {
  const [first, ...others] = props.hands.week.filter((one) => one !== null);
  return others.some((one) => one.begins_min !== first?.begins_min || one.ends_min !== first.ends_min);
});
const firstDay = computed(() => DAYS[props.hands.week.findIndex((one) => one)] ?? "");

function addOff(): void {
  const day = dayOff.value;
  wrongDay.value = "";
  if (!day) wrongDay.value = "Choose a day.";
  else if (props.hands.off.includes(day)) wrongDay.value = "That day is off already.";
  else {
    dayOff.value = "";
    change((hands) => hands.off.push(day));
  }
}

const past = (day: string): boolean => day < dayCode(new Date());
const y = (minutes: number): number => (minutes / DAY_MIN) * TALL;
</script>

<template>
  <section class="hands" :aria-label="name">
    <div class="head">
      <TextField
        class="name"
        :label="`Name of hands ${index + 1}`"
        :value="hands.name"
        :placeholder="`Hands ${index + 1}`"
        :most="40"
        empty
        @change="(text) => change((one) => (one.name = text))"
      />
      <button v-if="differ" class="act bare" @click="alike">Every day as {{ firstDay }}</button>
      <button
        v-if="!alone"
        class="act bare"
        @click="kitchen.change((kept) => void kept.hands.splice(index, 1))"
      >
        Remove {{ name }}
      </button>
    </div>
    <ol class="week">
      <li v-for="(day, at) in hands.week" :key="at" :class="{ off: !day }">
        <label class="works">
          <input
            type="checkbox"
            :checked="day !== null"
            :aria-label="`${name} works on ${DAYS[at]}`"
            @change="works(at, ($event.target as HTMLInputElement).checked)"
          />
          {{ DAYS[at] }}
        </label>
        <svg width="100%" :height="TALL" aria-hidden="true">
          <rect width="100%" :height="TALL" class="whole" />
          <rect
            v-if="day"
            width="100%"
            :y="y(day.begins_min)"
            :height="y(day.ends_min - day.begins_min)"
            class="work"
          />
          <path v-for="hour in [6, 12, 18]" :key="hour" :d="`M0 ${y(hour * 60)}h400`" class="hour" />
        </svg>
        <div v-if="day" class="times">
          <MeasureField
            quiet
            :label="`${name}, ${DAYS[at]} from`"
            limit="time_of_day"
            :value="day.begins_min"
            @change="(value) => setHour(at, 'begins_min', value)"
          />
          <span aria-hidden="true">to</span>
          <MeasureField
            quiet
            :label="`${name}, ${DAYS[at]} to`"
            limit="time_of_day"
            :value="day.ends_min"
            @change="(value) => setHour(at, 'ends_min', value)"
          />
        </div>
        <p v-else class="free">off</p>
        <p v-if="kitchen.wrongAt(`${pointer}/week/${at}`)" class="wrong" role="alert">
          {{ kitchen.wrongAt(`${pointer}/week/${at}`) }}
        </p>
      </li>
    </ol>
    <p v-if="kitchen.wrongAt(`${pointer}/week`, true)" class="wrong" role="alert">
      {{ kitchen.wrongAt(`${pointer}/week`, true) }}
    </p>
    <div class="days">
      <span>Days off</span>
      <ul>
        <li v-for="day in free" :key="day" :class="{ past: past(day) }">
          {{ dayWords(new Date(`${day}T00:00`)) }}
          <button
            class="act"
            :aria-label="`${name} works on ${dayWords(new Date(`${day}T00:00`))} after all`"
            @click="change((one) => (one.off = one.off.filter((other) => other !== day)))"
          >
            ×
          </button>
        </li>
      </ul>
      <form @submit.prevent="addOff">
        <input v-model="dayOff" type="date" :aria-label="`A day off for ${name}`" />
        <button class="act">Add a day off</button>
      </form>
      <p v-if="wrongDay || kitchen.wrongAt(`${pointer}/off`)" class="wrong" role="alert">
        {{ wrongDay || kitchen.wrongAt(`${pointer}/off`) }}
      </p>
    </div>
  </section>
</template>

<style scoped>
.hands {
  margin-bottom: 18px;
  padding-bottom: 12px;
  border-bottom: 1px solid var(--rule);
}

.head,
.days,
.days ul,
.days li,
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
}

.name {
  width: 260px;
}

.week {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(158px, 1fr));
  gap: 8px 14px;
  margin: 6px 0 10px;
  padding: 0;
  list-style: none;
}

.works {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
  font-weight: 600;
  cursor: pointer;
}

.works input {
  width: 20px;
  height: 20px;
  accent-color: var(--amber);
}

.whole {
  fill: var(--shelf);
}

.work {
  fill: var(--tint);
  stroke: var(--amber-line);
  stroke-width: 1.5;
}

.hour {
  stroke: var(--rule);
  stroke-width: 1;
}

.times {
  display: flex;
  gap: 6px;
  align-items: center;
  justify-content: space-between;
}

.free {
  min-height: 44px;
  padding-top: 10px;
  color: var(--soft);
}

.off .works {
  color: var(--soft);
  font-weight: 400;
}

.past {
  color: var(--soft);
}

.wrong {
  color: var(--trouble);
  font-size: 15px;
}

input[type="date"] {
  min-height: 44px;
  padding: 0 8px;
  border: 1px solid var(--edge);
  background: var(--panel);
  font: inherit;
}
</style>
