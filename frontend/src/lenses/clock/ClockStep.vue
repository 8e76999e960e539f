<script setup lang="ts">
/** The step selected: what to do, when and for how long, the sign that it is done, and how late it may be. */
import type { TimedStep } from "@/api/types";
import { hourWords } from "@/base/time";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import TaskList from "@/lenses/parts/TaskList.vue";
import StepMarks from "@/drawing/StepMarks.vue";
import { useClock } from "@/order/clock";
import { useOrder } from "@/order/order";
import FractionText from "@/ui/FractionText.vue";
import FirmingRows from "./FirmingRows.vue";
import { placeWords } from "@/order/placeWords";

defineProps<{ step: TimedStep; now: Date }>();
const settings = useSettings();
const clock = useClock();
const order = useOrder();
</script>

<template>
  <section class="step" aria-label="The step selected">
    <h3>{{ step.name }}</h3>
    <p v-if="step.said.text">
      <FractionText :text="settings.filled(step.said.text, step.said.values ?? {})" />
    </p>
    <p class="line">
      {{ placeWords(step) }}<template v-if="step.whose">, {{ step.whose }}</template>
      <b class="number">{{ hourWords(step.start, now) }} to {{ hourWords(step.end, now) }}</b>
    </p>
    <StepMarks
      v-if="order.id"
      :id="clock.selected"
      :key="`marks ${clock.selected}`"
      :order="order.id"
      :step="step"
      :works="step.hands !== null"
      :now="now"
      @changed="clock.refresh()"
    />
    <FigureRow v-if="step.hands" label="Hands-on" :figure="step.hands" />
    <template v-if="step.wait">
      <FigureRow label="Wait, planned" :figure="step.wait" />
      <p v-if="step.sign" class="sign">Done when {{ step.sign }}.</p>
      <FirmingRows
        v-if="step.firming"
        :id="clock.selected"
        :key="clock.selected"
        :firming="step.firming"
        :wait="step.wait"
      />
    </template>
    <FigureRow label="May be late by" :figure="step.slack" />
    <TaskList v-if="step.tasks.length" name="In detail" :tasks="step.tasks" open />
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

.number {
  font-size: 18px;
}

.sign {
  padding: 8px 0;
  font-weight: 600;
}
</style>
