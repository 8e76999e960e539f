<script setup lang="ts">
/** A figure to read: its number and unit. Pressed, it opens its working; pointed at, it lights its part. */
import { computed } from "vue";
import type { Figure } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import { useDesk } from "./desk";
import FractionText from "./FractionText.vue";
import { showWorking } from "./working";

const props = defineProps<{ figure: Figure; label: string; large?: boolean }>();
const settings = useSettings();
const desk = useDesk();
/** Lit when it is pointed at itself, or when the part it belongs to is. */
const lit = computed(() => desk.lit !== "" && `${props.figure.id}.`.startsWith(`${desk.lit}.`));
const shown = computed(() => settings.measure(props.figure));

/** A measure taken over as it is has nothing to explain. */
const explains = computed(() => props.figure.rule !== "same");

function open(event: MouseEvent): void {
  showWorking(props.figure, props.label, event.currentTarget as HTMLElement);
}
</script>

<template>
  <component
    :is="explains ? 'button' : 'span'"
    class="figure"
    :type="explains ? 'button' : undefined"
    :data-figure="figure.id"
    :class="{ large, lit, explains }"
    :aria-label="explains ? `${label}: ${shown.number} ${shown.unit}. Show the working` : undefined"
    @click="explains && open($event)"
    v-on="desk.lights(figure.id)"
    @focus="desk.lit = figure.id"
    @blur="desk.lit = ''"
  >
    <span class="number"><FractionText :text="shown.number" /></span>
    <span v-if="shown.unit" class="unit">{{ " " + shown.unit }}</span>
  </component>
</template>

<style scoped>
.figure {
  display: inline-flex;
  gap: 5px;
  align-items: baseline;
  min-height: 44px;
  padding: 7px 4px 0;
  border: 0;
  background: none;
  white-space: nowrap;
}

.explains {
  cursor: help;
}

/* It opens, and looks so: a dotted line under it, stronger where it is pointed at. */
.explains .number {
  padding-bottom: 1px;
  border-bottom: 2px dotted color-mix(in srgb, var(--edge) 60%, transparent);
}

.explains:hover .number,
.explains.lit .number {
  border-bottom-color: var(--ink);
}

.large .number {
  font-size: 36px;
  letter-spacing: -0.02em;
}

.large .unit {
  font-size: 18px;
}
</style>
