<script setup lang="ts">
/** The day sheet of the order on the bench: a lane for each tier. */
import { computed } from "vue";
import { useNow } from "@/base/now";
import { hourWords, momentCode } from "@/base/time";
import DaySheet from "@/drawing/DaySheet.vue";
import { type Entry, PLACE_ORDER, type Sheet } from "@/drawing/daySheet";
import { useSettings } from "@/kitchen/settings";
import { useClock } from "@/order/clock";
import { useMarks } from "@/order/marks";
import { useOrder } from "@/order/order";
import { PLACES } from "@/order/placeWords";

const order = useOrder();
const clock = useClock();
const settings = useSettings();
const now = useNow();

const marks = useMarks();
const wanted = computed(() =>
  marks.tried?.of === `${order.id} ${clock.selected}` ? marks.tried.start : undefined,
);

function reschedule(id: string, start: Date): void {
  const noted = clock.clock?.steps[id]?.noted ?? null;
  clock.selected = id;
  if (order.id) void marks.tryAt({ order: order.id, step: id, noted }, momentCode(start));
}

const sheet = computed<Sheet | null>(() => {
  const found = clock.clock;
  if (!found) return null;
  const entries = clock.steps.map(({ id, step }): Entry => ({
    ...step,
    id,
    works: step.hands !== null,
    words: "bench",
    took: step.hands ? settings.words(step.hands) : "",
    column: step.place,
    lane: step.tier ?? 0,
    whole: step.on === "cake",
    mark: step.tier ? `${step.tier}` : "",
  }));
  const columns = PLACE_ORDER.filter(
    (place) => place === "bench" || entries.some((one) => one.place === place),
  ).map((place) => ({ key: place, title: PLACES[place], worded: place === "bench" }));
  const words = `due ${hourWords(found.due, now.value)}`;
  return { entries, columns, until: [{ ready: found.ready, due: found.due, words }], allWays: true };
});
</script>

<template>
  <DaySheet
    :sheet="sheet"
    :now="now"
    :selected="clock.selected"
    label="The steps by the hour. Up and down select a step, with Alt they move it by 15 minutes."
    drawing="The order by the hour"
    :wanted="wanted"
    @select="(id) => (clock.selected = id)"
    @move="clock.move"
    @reschedule="reschedule"
  >
    <p v-if="clock.trouble" class="trouble" role="alert">{{ clock.trouble }}</p>
    <p v-if="!order.document?.due" class="empty">
      This order has no due hour yet.
      <RouterLink :to="{ name: 'order', params: { id: order.id, lens: 'brief' } }">
        Set its day and hour in Brief
      </RouterLink>
      and its steps are counted back from there.
    </p>
    <p v-else-if="!clock.clock && !clock.trouble" class="empty" role="status">
      {{ clock.awaited || "Counting back the hours …" }}
    </p>
  </DaySheet>
</template>
