<script setup lang="ts">
/** Whether the cake is driven, for how long, and where its tiers are put on each other. */
import { computed } from "vue";
import { useOrder } from "@/order/order";
import MeasureField from "@/ui/MeasureField.vue";
import PickField from "@/ui/PickField.vue";

const order = useOrder();
const asked = computed(() => order.document?.design.stacking);
const TRAVELS = [
  { value: null, words: "not set" },
  { value: true, words: "it is driven" },
  { value: false, words: "it stays here" },
] as const;
const STACKED = [
  { value: "kitchen", words: "here, before the drive" },
  { value: "there", words: "where it is served" },
] as const;
</script>

<template>
  <template v-if="asked">
    <PickField
      label="Does it travel?"
      :value="asked.travels ?? null"
      :choices="TRAVELS"
      @change="(travels) => order.edit((draft) => (draft.design.stacking.travels = travels))"
    />
    <template v-if="asked.travels !== false">
      <div class="rows">
        <MeasureField
          label="Driven for"
          limit="minutes"
          :value="asked.drive_min"
          optional="not set"
          pointer="#/design/stacking/drive_min"
          @change="(value) => order.edit((draft) => (draft.design.stacking.drive_min = value))"
        />
      </div>
      <PickField
        v-if="(order.document?.design.tiers.length ?? 0) > 1"
        label="Stacked"
        :value="asked.stacked ?? 'kitchen'"
        :choices="STACKED"
        @change="(stacked) => order.edit((draft) => (draft.design.stacking.stacked = stacked))"
      />
    </template>
  </template>
</template>
