<script setup lang="ts">
/** A number as a ruler has it: a fraction set as one, so that 1 1/4 never reads as 11/4. */
import { computed } from "vue";
import { runs } from "./fraction";

const props = defineProps<{ text: string }>();
const parts = computed(() => runs(props.text));
</script>

<template>
  <span class="set"
    ><template v-for="(part, at) in parts" :key="at"
      ><span v-if="part.over" class="frac"
        ><template v-if="part.whole">{{ part.whole }}&nbsp;</template
        ><span :class="{ mixed: part.whole }"
          ><sup>{{ part.over }}</sup
          ><span class="stroke">/</span><sub>{{ part.under }}</sub></span
        ></span
      ><template v-else>{{ part.plain }}</template></template
    ></span
  >
</template>

<style scoped>
.set {
  white-space: pre-wrap;
}

.frac {
  white-space: nowrap;
}

.mixed {
  margin-left: -0.12em;
}

sup,
sub {
  font-size: 0.66em;
  line-height: 1;
  vertical-align: baseline;
}

sup {
  position: relative;
  top: -0.46em;
}

sub {
  position: relative;
  top: 0.06em;
}

.stroke {
  margin: 0 -0.06em;
  font-weight: 400;
  font-size: 1.05em;
}
</style>
