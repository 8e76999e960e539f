<script setup lang="ts">
/** Mark the step selected as begun or done, or move it to another hour and see first what that moves. */
import { computed } from "vue";
import type { Noted, TimedStep } from "@/api/types";
import { hourWords, momentCode } from "@/base/time";
import { useMarks } from "@/order/marks";
import ChangesList from "./ChangesList.vue";

const props = defineProps<{
  order: string;
  id: string;
  step: Pick<TimedStep, "state" | "noted" | "start" | "hand">;
  /** Whether hands are on it, or it waits. */
  works: boolean;
  now: Date;
}>();
const emit = defineEmits<{ changed: [] }>();
const NUDGE_MIN = 15;
const marks = useMarks();
const at = computed(() => ({ order: props.order, step: props.id, noted: props.step.noted }));
const key = computed(() => `${props.order} ${props.id}`);
const tried = computed(() => (marks.tried?.of === key.value ? marks.tried : undefined));
const done = computed(() => (marks.done?.of === key.value ? marks.done : undefined));
const trouble = computed(() => (marks.trouble?.of === key.value ? marks.trouble.words : ""));
const start = computed(() => tried.value?.start ?? props.step.start);
/** A moment as a field of the browser has it, to the minute. */
const inField = (moment: string | null | undefined): string => moment?.slice(0, 16) ?? "";

async function mark(noted: Partial<Noted> | null): Promise<void> {
  const none = { begun: null, done: null, start: null, hand: null };
  await marks.mark(at.value, noted && { ...none, ...noted });
  emit("changed");
}

const nowCode = (): string => momentCode(new Date());
const begin = (begun = nowCode()): Promise<void> => mark({ begun, hand: props.step.hand });
const finish = (moment = nowCode()): Promise<void> =>
  mark({
    begun: props.step.noted?.begun ?? null,
    done: moment,
    hand: props.step.noted?.hand ?? props.step.hand,
  });
const notDone = (): Promise<void> => {
  const { begun, hand } = props.step.noted ?? {};
  return mark(begun ? { begun, hand: hand ?? null } : null);
};

function nudge(minutes: number): void {
  const then = new Date(new Date(start.value).getTime() + minutes * 60_000);
  void marks.tryAt(at.value, momentCode(then));
}

async function undo(): Promise<void> {
  await marks.undo();
  emit("changed");
}

function typed(event: Event, take: (moment: string) => unknown): void {
  const { value } = event.target as HTMLInputElement;
  if (value) void take(`${value}:00`);
}
</script>

<template>
  <div class="marks">
    <template v-if="works && !step.state">
      <div class="acts">
        <button class="act main" :disabled="marks.busy" @click="begin()">Begin now</button>
        <button class="act" :disabled="marks.busy" @click="finish()">It is done</button>
      </div>
      <label class="at">
        Start at
        <input
          type="datetime-local"
          :value="inField(start)"
          @change="typed($event, (moment) => marks.tryAt(at, moment))"
        />
      </label>
      <div class="acts">
        <button class="act bare" :disabled="marks.busy" @click="nudge(-NUDGE_MIN)">
          {{ NUDGE_MIN }} min earlier
        </button>
        <button class="act bare" :disabled="marks.busy" @click="nudge(NUDGE_MIN)">
          {{ NUDGE_MIN }} min later
        </button>
      </div>
      <p v-if="step.noted?.start && !tried" class="noted">
        You moved it to {{ hourWords(step.noted.start, now) }}.
        <button class="act" :disabled="marks.busy" @click="mark(null)">Let it move with the plan</button>
      </p>
    </template>
    <template v-else-if="step.state === 'begun' && works">
      <label class="at">
        Begun at
        <input
          type="datetime-local"
          :value="inField(step.noted?.begun ?? step.start)"
          @change="typed($event, begin)"
        />
      </label>
      <div class="acts">
        <button class="act main" :disabled="marks.busy" @click="finish()">Done now</button>
        <button v-if="step.noted" class="act bare" :disabled="marks.busy" @click="mark(null)">
          Not begun after all
        </button>
      </div>
    </template>
    <template v-else-if="step.noted?.done">
      <label class="at">
        Done at
        <input type="datetime-local" :value="inField(step.noted.done)" @change="typed($event, finish)" />
      </label>
      <button class="act bare" :disabled="marks.busy" @click="notDone()">Not done after all</button>
    </template>
    <p v-else-if="step.state === 'done'" class="noted">Done, since what comes after it has begun.</p>
    <button v-else class="act main" :disabled="marks.busy" @click="finish()">It is done</button>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <div v-if="tried" role="status">
      <div class="acts">
        <button class="act main" :disabled="marks.busy" @click="mark({ start: tried.start })">Move it</button>
        <button class="act" @click="marks.letGo()">Leave it</button>
      </div>
      <ChangesList :changes="tried.changes" :order="order" :now="now" />
    </div>
    <div v-else-if="done" role="status">
      <div class="acts">
        <button class="act" :disabled="marks.busy" @click="undo">Undo</button>
      </div>
      <ChangesList :changes="done.changes" :order="order" :now="now" />
    </div>
  </div>
</template>

<style scoped>
.marks {
  padding: 8px 0;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 6px 0;
}

.at {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  min-height: 44px;
  margin-top: 6px;
  white-space: nowrap;
}

.at input {
  flex: 1;
  min-width: 0;
  max-width: 230px;
  min-height: 44px;
  padding: 0 8px;
  border: 1px solid var(--edge);
  background: var(--panel);
  font: inherit;
}

.noted {
  color: var(--soft);
}

.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
}
</style>
