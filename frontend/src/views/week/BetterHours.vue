<script setup lang="ts">
/** Look for better hours for the week, see what they would move, and keep them or not. */
import { computed, onBeforeUnmount, ref, watch } from "vue";
import { minutesMeasure } from "@/base/amount";
import { hourWords } from "@/base/time";
import { useHandbook } from "@/kitchen/handbook";
import { useBetter } from "@/order/better";
import { useWeek } from "@/order/week";

const props = defineProps<{ now: Date }>();
const week = useWeek();
const better = useBetter();
const handbook = useHandbook();
const orders = computed(() => week.week?.orders ?? []);
/** What should have begun by now, as far as the plan knows. */
const due = computed(() => orders.value.filter((order) => new Date(order.begins) <= props.now));
const notBegun = ref<string[]>([]);
const begun = computed(() => due.value.map(({ id }) => id).filter((id) => !notBegun.value.includes(id)));
const pinned = computed(() => orders.value.filter((order) => order.pinned).length);

/** For how many seconds better hours are looked for at most, and how many are over. */
const most = computed(() => handbook.book?.search_s ?? 0);
const elapsed = ref(0);
let timer: ReturnType<typeof setInterval> | undefined;
watch(
  () => better.searching,
  (now) => {
    clearInterval(timer);
    elapsed.value = 0;
    if (now) timer = setInterval(() => (elapsed.value += 1), 1000);
  },
);
onBeforeUnmount(() => clearInterval(timer));

const beginsWords = (one: { begins: string; would_begin: string }): string =>
  one.would_begin === one.begins
    ? ""
    : `, begins ${hourWords(one.would_begin, props.now)} and not ${hourWords(one.begins, props.now)}`;

function fresherWords(min: number): string {
  if (Math.abs(min) < 1) return "";
  const { number, unit } = minutesMeasure(Math.abs(min));
  return min > 0 ? `, baked ${number} ${unit} later` : `, baked ${number} ${unit} earlier`;
}

function setBegun(id: string, on: boolean): void {
  notBegun.value = on ? notBegun.value.filter((one) => one !== id) : [...notBegun.value, id];
}
</script>

<template>
  <section class="better" aria-label="Better hours">
    <h3>Better hours</h3>
    <template v-if="!better.searching && better.found === undefined">
      <p class="soft">
        Try other hours for all orders together: nothing late, nothing that waits too long, cakes baked as
        late as they can be. You see what would move before anything changes.
      </p>
      <fieldset v-if="due.length">
        <legend>Has the work on these begun? Then they keep their hours.</legend>
        <label v-for="order in due" :key="order.id">
          <input
            type="checkbox"
            :checked="!notBegun.includes(order.id)"
            @change="setBegun(order.id, ($event.target as HTMLInputElement).checked)"
          />
          {{ order.title }}
        </label>
      </fieldset>
      <button class="act main wide" @click="better.look(begun)">Look for better hours</button>
    </template>
    <div v-else-if="better.searching" role="status">
      <p>
        Looking for better hours, for {{ most }} seconds at most.
        {{ better.count ? `Better ones so far: ${better.count}.` : "" }}
        {{ elapsed > most ? "This computer is busy; a little longer." : "" }}
      </p>
      <progress aria-label="Looking for better hours" :max="most + 1" :value="Math.min(elapsed, most)" />
      <button class="act wide" @click="better.letGo()">Stop</button>
    </div>
    <template v-else-if="better.found">
      <p role="status">These orders would move:</p>
      <ul>
        <li v-for="one in better.found.moved" :key="one.id">
          <strong>{{ one.title }}</strong>
          <span>
            {{ one.steps === 1 ? "1 step moves" : `${one.steps} steps move` }}{{ beginsWords(one)
            }}{{ fresherWords(one.fresher_min) }}
          </span>
        </li>
      </ul>
      <div class="same">
        <button class="act main" @click="better.keep()">Keep these hours</button>
        <button class="act" @click="better.letGo()">Leave it as it is</button>
      </div>
    </template>
    <template v-else>
      <p role="status">No better hours were found. The plan stays as it is.</p>
      <button class="act wide" @click="better.letGo()">Close</button>
    </template>
    <p v-if="better.trouble" class="trouble" role="alert">{{ better.trouble }}</p>
    <template v-if="pinned && !better.searching && !better.found">
      <p class="soft">
        {{ pinned === 1 ? "1 order has" : `${pinned} orders have` }} hours you kept. They stay as long as they
        fit its work and your hands and places.
      </p>
      <button class="act wide" @click="better.giveUp()">Give up the hours you kept</button>
    </template>
  </section>
</template>

<style scoped>
h3 {
  margin: 16px 0 2px;
  font: 600 20px/1.2 var(--serif);
}

.soft {
  color: var(--soft);
}

fieldset {
  margin: 6px 0;
  padding: 0;
  border: 0;
}

legend {
  padding: 0;
}

label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}

label input {
  width: 20px;
  height: 20px;
  accent-color: var(--amber);
}

.wide {
  width: 100%;
  margin: 6px 0;
}

.same {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

progress {
  width: 100%;
  height: 8px;
  accent-color: var(--amber-line);
}

ul {
  margin: 4px 0 8px;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}

.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
}
</style>
