<script setup lang="ts">
/**
 * A number that can be changed where it stands. Lengths take any unit a person types. What cannot be used
 * stays in the field with a sentence beside it; Escape brings back what was. Emptied, a field with a usual
 * value goes back to the usual.
 */
import { computed, nextTick, onBeforeUnmount, ref, useId } from "vue";
import type { Limit } from "@/api/types";
import { parseMinutes, parsePrice, parseTemperature, parseTimeOfDay, timeOfDay } from "@/base/amount";
import {
  decimal,
  lengthForEditing,
  lengthTyped,
  parseLength,
  parseWeight,
  type Rounding,
  UnitError,
} from "@/base/units";
import { useHandbook } from "@/kitchen/handbook";
import { useSettings } from "@/kitchen/settings";
import { useDesk } from "./desk";
import { pieces } from "./fraction";
import FractionText from "./FractionText.vue";
import { useTyped } from "./typed";

const props = defineProps<{
  label: string;
  value: number | null | undefined;
  usual?: number;
  limit: string;
  percent?: boolean;
  pointer?: string;
  figure?: string;
  large?: boolean;
  quiet?: boolean;
  optional?: string;
  /** How a worked-out value that stands here until one is typed is rounded. */
  rounding?: Rounding;
}>();
const emit = defineEmits<{
  change: [value: number | null];
  /** What is being typed, each time the hands rest a little: what it would come to can be shown. */
  trying: [value: number];
  /** No longer typed at; what was tried is let go of. */
  tried: [];
}>();
const REST_MS = 120;

const settings = useSettings();
const handbook = useHandbook();
const desk = useDesk();
const id = useId();
const input = ref<HTMLInputElement>();
const { typed, wrong, begin, type, finish, giveUp } = useTyped(take, props.pointer);

/** How wide a digit of a fraction is beside another, and what the stroke between them takes besides. */
const SMALL = 0.66;
const STROKE = 0.1;
const bound = computed(() => handbook.limit(props.limit));
const current = computed(() => props.value ?? props.usual ?? null);
const shown = computed(() => {
  if (current.value === null) return null;
  // What is not typed but worked out reads as its figure does everywhere else, rounded the same way.
  const own = props.value !== null && props.value !== undefined;
  if (!own && props.rounding && bound.value.unit === "mm")
    return settings.measure({ value: current.value, unit: "mm" }, props.rounding);
  return measured(current.value);
});
const unit = computed(() => shown.value?.unit ?? (bound.value.unit === "mm" ? settings.length : ""));
const displayed = computed(() => typed.value ?? shown.value?.number ?? "");
/** While nobody types in it, a fraction is set as one. */
const set = computed(() => typed.value === null && pieces(displayed.value).some((one) => one.over));
/** About as wide as the text: spaces and strokes are half a digit, and the parts of a fraction that is set are small. */
const width = computed(() => {
  const text = displayed.value || props.optional || "";
  const long = (part: string): number => part.length - (part.match(/[ /.,]/g)?.length ?? 0) / 2;
  const digits = set.value
    ? pieces(text).reduce(
        (sum, one) => sum + (one.over ? SMALL * one.plain.length + STROKE : long(one.plain)),
        0,
      )
    : long(text) + 0.4;
  return `${Math.max(1.6, digits)}ch`;
});
const trouble = computed(() => wrong.value || (props.pointer ? desk.complaintAt(props.pointer) : ""));

function measured(value: number): { number: string; unit: string } {
  if (props.percent) return { number: decimal(value * 100, 1), unit: "%" };
  switch (bound.value.unit) {
    case "mm":
      return lengthTyped(value, settings.length);
    case "g":
      return settings.weight === "g"
        ? { number: decimal(value, 1), unit: "g" }
        : settings.measure({ value, unit: "g" });
    case "g_per_ml":
      return { number: decimal(value, 3), unit: "g per ml" };
    case "g_per_cm2":
      return { number: decimal(value, 1), unit: "g per cm²" };
    case "money":
      return { number: value.toFixed(2), unit: settings.currency };
    case "min":
      return { number: decimal(value, 0), unit: "min" };
    case "time":
      return { number: timeOfDay(value), unit: "" };
    case "deg":
      return { number: decimal(value, 1), unit: "°" };
    case "degC":
      return { number: decimal(value, 1), unit: "°C" };
    case "ml":
      return { number: decimal(value, 0), unit: "ml" };
    default:
      return { number: decimal(value, 3), unit: "" };
  }
}

function enter(): void {
  const value = current.value;
  const length = value !== null && bound.value.unit === "mm";
  begin(length ? lengthForEditing(value, settings.length) : (shown.value?.number ?? ""));
  if (props.figure) desk.lit = props.figure;
  void nextTick(() => input.value?.select());
}

function leave(): void {
  if (desk.lit === props.figure) desk.lit = "";
  void finish();
  letGo();
}

let resting: ReturnType<typeof setTimeout> | undefined;
let tried = false;

/** Show what it would come to once the hands rest; what cannot be used yet is only half typed, and nothing is said. */
function typing(event: Event): void {
  type(event);
  clearTimeout(resting);
  resting = setTimeout(() => {
    try {
      const value = read((typed.value ?? "").trim());
      tried = true;
      emit("trying", value);
    } catch (error) {
      if (!(error instanceof UnitError)) throw error;
    }
  }, REST_MS);
}

function letGo(): void {
  clearTimeout(resting);
  if (tried) emit("tried");
  tried = false;
}

onBeforeUnmount(letGo);

function take(text: string): string {
  if (text.trim() === "" && (props.usual !== undefined || props.optional)) {
    if (props.value !== null && props.value !== undefined) emit("change", null);
    return "";
  }
  try {
    const value = read(text.trim());
    if (current.value === null || Math.abs(value - current.value) > 1e-6) emit("change", value);
    return "";
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    return error.message;
  }
}

/** How what is typed becomes a value, by the unit of its limit; plain numbers where it is not here. */
const READERS: Partial<Record<Limit["unit"], (typed: string, low: number) => number>> = {
  mm: (typed, low) => parseLength(typed, settings.length, low < 0),
  g: (typed) => parseWeight(typed, settings.weight),
  money: (typed) => parsePrice(typed, settings.currency),
  min: parseMinutes,
  time: parseTimeOfDay,
  degC: parseTemperature,
};

/** The value that was typed, within its limits. Throws UnitError with a sentence that says what would be accepted. */
function read(typed: string): number {
  const { low, high, unit: kind } = bound.value;
  const value = (READERS[kind] ?? plain)(typed, low);
  if (value < low || value > high) {
    throw new UnitError(`Type ${limitWords(low)} to ${limitWords(high)}.`);
  }
  return value;
}

function plain(typed: string): number {
  const whole = bound.value.unit === "each";
  const match = (props.percent ? /^\d+(?:[.,]\d+)?\s*%?$/ : /^\d+(?:[.,]\d+)?$/).exec(typed);
  const value = match ? Number.parseFloat(typed.replace(",", ".")) : Number.NaN;
  if (Number.isNaN(value) || (whole && !Number.isInteger(value))) {
    const from = limitWords(bound.value.low);
    throw new UnitError(`Type a ${whole ? "whole " : ""}number, ${from} to ${limitWords(bound.value.high)}.`);
  }
  return props.percent ? value / 100 : value;
}

function limitWords(value: number): string {
  if (props.percent) return `${decimal(value * 100, 0)} %`;
  return bound.value.unit === "each" || bound.value.unit === "ratio"
    ? decimal(value, 2)
    : settings.typedWords(value, bound.value.unit);
}

function putBack(): void {
  giveUp();
  input.value?.blur();
}

defineExpose({ focus: () => input.value?.focus() });
</script>

<template>
  <span
    class="measure"
    :class="{ large, quiet, wrong: trouble }"
    @pointerenter="figure && (desk.lit = figure)"
    @pointerleave="desk.lit = ''"
  >
    <label :for="id" :class="{ unseen: quiet }">{{ label }}</label>
    <span class="box">
      <span class="field" :class="{ set }">
        <input
          :id="id"
          ref="input"
          type="text"
          autocomplete="off"
          spellcheck="false"
          :value="displayed"
          :placeholder="optional"
          :style="{ width }"
          :data-edits="figure"
          :aria-invalid="trouble !== ''"
          :aria-describedby="trouble ? `${id}-wrong` : undefined"
          @focus="enter"
          @input="typing"
          @blur="leave"
          @keydown.enter="input?.blur()"
          @keydown.esc.stop="putBack"
        />
        <span v-if="set" class="fraction" aria-hidden="true"><FractionText :text="displayed" /></span>
      </span>
      <span v-if="unit && typed === null && displayed" class="unit">{{ unit }}</span>
    </span>
    <span v-if="trouble" :id="`${id}-wrong`" class="says" role="alert">{{ trouble }}</span>
  </span>
</template>

<style scoped>
.measure {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  column-gap: 12px;
}

.measure.quiet {
  grid-template-columns: auto;
}

label {
  color: var(--ink);
}

.box {
  display: inline-flex;
  gap: 5px;
  align-items: baseline;
  justify-self: end;
  min-height: 40px;
  padding-top: 5px;
}

.field {
  position: relative;
}

.set input {
  color: transparent;
}

/* Laid over the field, whose own text stays there to be read out and pressed. */
.fraction {
  position: absolute;
  inset: 0 2px 0 auto;
  display: grid;
  align-content: center;
  font-family: var(--serif);
  font-weight: 600;
  font-size: 20px;
  white-space: nowrap;
  pointer-events: none;
}

input {
  box-sizing: content-box;
  max-width: 12ch;
  height: 30px;
  padding: 0 2px;
  border-radius: 0;
  font-family: var(--serif);
  font-weight: 600;
  font-size: 20px;
  text-align: right;
}

input::placeholder {
  color: var(--soft);
  font-family: var(--sans);
  font-weight: 400;
  font-size: 16px;
  opacity: 1;
}

/* Where the colours are the reader's own, the field's text shows itself: laid over it, every digit would stand twice. */
@media (forced-colors: active) {
  .fraction {
    display: none;
  }

  .set input {
    color: FieldText;
  }
}

input:hover,
input:focus {
  outline: none;
  background: var(--tint);
}

input:focus-visible {
  box-shadow: 0 0 0 3px var(--amber-line);
}

.large input {
  font-size: 30px;
}

.wrong input {
  border-color: var(--trouble);
  background: var(--blush);
}

.says {
  grid-column: 1 / -1;
  padding: 4px 0 6px;
  color: var(--trouble);
  font-size: 15px;
  white-space: normal;
}
</style>
