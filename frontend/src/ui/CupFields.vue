<script setup lang="ts">
/** Weigh a cup of yours: what it holds and what it weighs, for the density the server makes of them. */
import { ref } from "vue";
import { answered, api, wordsOf } from "@/api/client";
import { useHandbook } from "@/kitchen/handbook";
import MeasureField from "./MeasureField.vue";

const props = defineProps<{
  /** Take the density, in g per ml; what was done with it in words. */
  take: (density: number) => Promise<string> | string;
}>();
const handbook = useHandbook();
const holds = ref<number | null>(240);
const weighs = ref<number | null>(null);
const told = ref("");

async function weigh(): Promise<void> {
  if (!holds.value || !weighs.value) {
    told.value = "Type what your cup holds and what it weighs when filled level.";
    return;
  }
  try {
    const body = { cup_g: weighs.value, volume_ml: holds.value };
    const { value } = await answered(api.POST("/api/pantry/density", { body }));
    const { low, high } = handbook.limit("density_g_per_ml");
    told.value =
      value < low || value > high
        ? "That would be lighter than foam or heavier than rock. Look at both numbers again."
        : await props.take(Math.round(value * 1000) / 1000);
  } catch (error) {
    told.value = wordsOf(error, "The kitchen's server cannot be reached just now. Nothing was changed.");
  }
}
</script>

<template>
  <div class="rows">
    <MeasureField label="The cup holds, ml" limit="cup" :value="holds" @change="(value) => (holds = value)" />
    <MeasureField
      label="It weighs, g, without the cup"
      limit="cup"
      optional="not weighed"
      :value="weighs"
      @change="(value) => (weighs = value)"
    />
    <button class="act" @click="weigh">Take this weight</button>
    <p v-if="told" role="status">{{ told }}</p>
  </div>
</template>

<style scoped>
.act {
  margin-top: 8px;
}

p {
  padding: 6px 0;
  color: var(--soft);
}
</style>
