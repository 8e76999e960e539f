<script setup lang="ts">
/** Text of a drawing with its fractions set as a ruler has them; goes into a `<text>`. */
import { computed } from "vue";
import { pieces } from "@/ui/fraction";

const props = defineProps<{ text: string }>();
const parts = computed(() => pieces(props.text));
</script>

<template>
  <template v-for="(part, at) in parts" :key="at"
    ><template v-if="part.over"
      ><tspan class="frac" :dx="part.mixed ? '-0.12em' : undefined" dy="-0.34em">{{ part.over }}</tspan
      ><tspan dx="-0.04em" dy="0.224em">/</tspan
      ><tspan class="frac" dx="-0.04em" dy="0.06em">{{ part.under }}</tspan></template
    ><tspan v-else :dy="parts[at - 1]?.over ? '-0.04em' : undefined">{{ part.plain }}</tspan></template
  >
</template>

<style scoped>
.frac {
  font-size: 0.66em;
}
</style>
