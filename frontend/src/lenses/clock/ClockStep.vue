<script setup lang="ts">
/** The step selected: what to do, when and for how long, the sign that it is done, and how late it may be. */
import type { TimedStep } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import { useClock } from "@/order/clock";
import FractionText from "@/ui/FractionText.vue";
import { hourWords, named, PLACES } from "./words";

defineProps<{ step: TimedStep; now: Date }>();
const settings = useSettings();
const clock = useClock();
</script>

<template>
  <section class="step" aria-label="The step selected">
    <h3>{{ named(step) }}</h3>
    <p v-if="step.said.text">
      <FractionText :text="settings.filled(step.said.text, step.said.values ?? {})" />
    </p>
    <p class="line">
      {{ PLACES[step.place]
      }}<template v-if="step.hand && (clock.clock?.hands ?? 1) > 1">, hands {{ step.hand }}</template>
      <b class="number">{{ hourWords(step.start, now) }} to {{ hourWords(step.end, now) }}</b>
    </p>
    <FigureRow v-if="step.hands" label="Hands-on" :figure="step.hands" />
    <template v-if="step.wait">
      <FigureRow label="Wait, planned" :figure="step.wait" />
      <p v-if="step.sign" class="sign">
        Done when: {{ step.sign[0]?.toLowerCase() }}{{ step.sign.slice(1) }}.
      </p>
    </template>
    <FigureRow label="May be late by" :figure="step.slack" />
    <p v-for="one in step.cautions" :key="one.text" class="caution">
      <strong>Caution.</strong> <FractionText :text="settings.filled(one.text, one.values ?? {})" />
    </p>
    <details v-if="step.jobs.length">
      <summary>In detail</summary>
      <ol>
        <li v-for="one in step.jobs" :key="one.text">
          <FractionText :text="settings.filled(one.text, one.values ?? {})" />
        </li>
      </ol>
    </details>
    <button class="act bare" @click="clock.selected = ''">Close</button>
  </section>
</template>

<style scoped>
.step {
  margin: 14px -20px 0;
  padding: 2px 20px 10px;
  border-left: 4px solid var(--amber-line);
  background: var(--paper);
}

.line {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  min-height: 46px;
  border-bottom: 1px solid var(--rule);
}

.number {
  font-size: 18px;
}

.sign {
  padding: 8px 0;
  font-weight: 600;
}

.caution {
  margin: 8px 0;
  padding: 4px 10px;
  border-left: 4px solid var(--teal);
}

summary {
  min-height: 44px;
  padding-top: 11px;
  cursor: pointer;
}

ol {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0 0 8px 22px;
}
</style>
