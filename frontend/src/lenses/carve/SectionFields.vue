<script setup lang="ts">
/** The sections across a carved tier: one for all of it, or several along it, each rounded or drawn by itself. */
import { computed } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import { useCarving } from "@/order/carving";
import { useSections } from "@/order/sections";
import ChoiceRows from "@/ui/ChoiceRows.vue";
import MeasureField from "@/ui/MeasureField.vue";

const handbook = useHandbook();
const { order, fromFront, setFront } = useCarving();
const { sections, at, held, inHand, ...does } = useSections();
const listed = computed(() => sections.value.map((one, index) => ({ value: index, one })));
const most = computed(() => handbook.limit("sections").high);
const per = (share: number): string => `${Math.round(100 * share)} %`;
const place = computed(() => `#/design/tiers/${order.tier}/build/sections/${at.value}`);
</script>

<template>
  <p v-if="sections.length" class="soft">
    Counted from the left end. From one to the next the cake goes over straight.
  </p>
  <ChoiceRows
    v-if="sections.length"
    v-slot="{ choice: { value: index, one } }"
    label="The section in hand"
    :value="at"
    :choices="listed"
    @change="(index) => (held = index)"
  >
    <b>{{ index + 1 }}</b>
    <span>{{ per(one.at) }} along, {{ one.points_mm ? "drawn" : `rounded ${per(one.rounded)}` }}</span>
  </ChoiceRows>
  <div v-if="inHand" class="rows">
    <MeasureField
      :key="`at-${at}`"
      label="So far from the left end"
      :value="inHand.at"
      limit="share"
      percent
      :pointer="`${place}/at`"
      @change="(value) => value !== null && does.change({ at: value })"
    />
    <MeasureField
      v-if="!inHand.points_mm"
      :key="`rounded-${at}`"
      label="Rounded across, there"
      :value="inHand.rounded"
      limit="share"
      percent
      :pointer="`${place}/rounded`"
      @change="(value) => value !== null && does.change({ rounded: value })"
    />
  </div>
  <div class="same">
    <button class="act" @click="setFront(!fromFront)">
      {{ fromFront ? "Round it off instead" : sections.length ? "Draw this section" : "Draw its sections" }}
    </button>
    <button class="act" :disabled="sections.length >= most" @click="does.add">
      {{ sections.length ? "Another section" : "Let it differ from end to end" }}
    </button>
    <button v-if="sections.length" class="act" @click="does.remove">Take this one out</button>
  </div>
</template>
