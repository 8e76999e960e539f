<script setup lang="ts">
/** How the coat at a step firms: until you can touch it, right through, and what it really took here. */
import { computed, ref } from "vue";
import { Refused } from "@/api/client";
import { complaintWords } from "@/api/complaint";
import type { Figure, Firming } from "@/api/types";
import { decimal } from "@/base/units";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import { useClock } from "@/order/clock";
import { useOrder } from "@/order/order";
import MeasureField from "@/ui/MeasureField.vue";

const props = defineProps<{ id: string; firming: Firming; wait: Figure }>();
const order = useOrder();
const clock = useClock();
const settings = useSettings();
const done = ref("");
const wrong = ref("");
const busy = ref(false);
const other = computed(() => (props.firming.where === "fridge" ? "freezer" : "fridge"));
/** How firm it gets when, beside what is planned. */
const levels = computed(() =>
  (
    [
      ["Firm to the touch", props.firming.touch],
      ["Firm right through", props.firming.through],
      ["Firm enough to lift", props.firming.lift],
    ] as const
  ).filter(([, figure]) => figure?.value !== props.wait.value),
);
/** From the shortest to the longest it may take to firm through. */
const range = computed(() => {
  const { least, most } = props.firming;
  return least && most ? `${settings.measure(least).number} to ${settings.words(most)}` : "";
});

/** Correct how well this fridge or freezer cools by what the coat took. */
async function took(minutes: number | null): Promise<void> {
  done.value = wrong.value = "";
  if (minutes === null) return;
  busy.value = true;
  try {
    const found = await clock.paceOf(props.id, minutes);
    if (!found) return;
    const { where, pace } = found;
    order.edit((draft) => void (draft.practice[`${where}_pace`] = pace));
    done.value = `Your ${where} cools ${decimal(pace * 100, 0)} % as well as a usual one. This order counts on that now: see Heat and cold below.`;
  } catch (error) {
    wrong.value =
      error instanceof Refused && error.problem.errors.length
        ? error.problem.errors.map((one) => complaintWords(one)).join(" ")
        : "The kitchen's server cannot be reached just now. Try again in a moment.";
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <FigureRow v-for="[words, figure] in levels" :key="words" :label="words" :figure="figure" />
  <FigureRow :label="`Through, in the ${other}`" :figure="firming.other" />
  <p v-if="range" class="line">
    At best and at worst <b class="range">{{ range }}</b>
  </p>
  <FigureRow label="Then firm on the bench for" :figure="firming.stays" />
  <FigureRow label="This coat holds below" :figure="firming.holds" />
  <template v-if="firming.wetness">
    <FigureRow :label="`Then sweats (${firming.wetness}) for up to`" :figure="firming.wet" />
    <FigureRow label="Dew point of the kitchen" :figure="firming.dew" />
  </template>
  <p v-else class="soft">It stays dry: the kitchen's dew point is no warmer than the {{ firming.where }}.</p>
  <MeasureField
    :label="`It took, in the ${firming.where}`"
    limit="took_min"
    :value="null"
    optional="not timed"
    @change="took"
  />
  <p v-if="busy" class="soft" role="status">Working it out …</p>
  <p v-if="done" class="soft" role="status">{{ done }}</p>
  <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
</template>

<style scoped>
.range {
  font-weight: 600;
  white-space: nowrap;
}

.wrong {
  color: var(--trouble);
}
</style>
