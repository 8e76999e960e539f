<script setup lang="ts">
/** Seams of a cover of patches where one wants them: level, or upright and turned, all the way or up to another. */
import { computed } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import { useTier } from "@/lenses/parts/tier";
import { type Seam, wayOf, waysOf, withoutSeam } from "@/order/seams";
import MeasureField from "@/ui/MeasureField.vue";
import PickField from "@/ui/PickField.vue";

const { order, tier, change } = useTier();
const seams = computed(() => (tier.value?.cover.kind === "patches" ? tier.value.cover.own_seams : []));
const most = useHandbook().limit("own_seams").high;
const place = computed(() => `#/design/tiers/${order.tier}/cover/own_seams`);
const RUNS = [
  { value: "upright", words: "upright" },
  { value: "level", words: "level, all round" },
] as const;

function alter(how: (seams: Seam[]) => Seam[]): void {
  change((tier) => {
    if (tier.cover.kind === "patches") tier.cover.own_seams = how(tier.cover.own_seams);
  });
}

function set(at: number, to: Partial<Seam>): void {
  alter((seams) => seams.map((seam, index) => (index === at ? { ...seam, ...to } : seam)));
}

/** The next one crosses those there are: from left to right, from front to back, then level. */
function add(): void {
  const turns = seams.value.filter((one) => one.run === "upright").map((one) => one.turn_deg);
  const turn_deg = [0, 90].find((turn) => !turns.includes(turn));
  alter((seams) => [
    ...seams,
    { run: turn_deg === undefined ? "level" : "upright", at: 0.5, turn_deg: turn_deg ?? 0, within: null },
  ]);
}

function runWithin(at: number, value: string): void {
  const way = waysOf(seams.value, at).find((one) => one.value === value);
  if (way) set(at, { within: way.within });
}
</script>

<template>
  <h3>Seams of your own</h3>
  <p class="soft">
    Put them where a strip, a fold or the back hides them. Each cuts through every patch, or ends at a seam of
    yours before it.
  </p>
  <div v-for="(seam, index) in seams" :key="index" class="seam">
    <PickField
      :label="`Seam ${index + 1} runs`"
      :value="seam.run"
      :choices="RUNS"
      @change="(run) => set(index, { run })"
    />
    <PickField
      v-if="index"
      :label="`Seam ${index + 1} goes`"
      :value="wayOf(seam.within)"
      :choices="waysOf(seams, index)"
      @change="(value) => runWithin(index, value)"
    />
    <div class="rows">
      <MeasureField
        :label="seam.run === 'level' ? 'So far up the tier' : 'So far across the tier'"
        :value="seam.at"
        limit="share"
        percent
        :pointer="`${place}/${index}/at`"
        @change="(at) => at !== null && set(index, { at })"
      />
      <MeasureField
        v-if="seam.run === 'upright'"
        label="Turned from left to right by"
        :value="seam.turn_deg"
        limit="turn_deg"
        :pointer="`${place}/${index}/turn_deg`"
        @change="(turn_deg) => turn_deg !== null && set(index, { turn_deg })"
      />
    </div>
    <button
      class="act"
      :aria-label="`Take it out: seam ${index + 1}`"
      @click="alter((list) => withoutSeam(list, index))"
    >
      Take it out
    </button>
  </div>
  <button class="act" :disabled="seams.length >= most" @click="add">
    {{ seams.length ? "Another seam" : "Choose a seam" }}
  </button>
</template>

<style scoped>
.soft {
  padding: 4px 0 8px;
}
.seam {
  padding-bottom: 12px;
}
</style>
