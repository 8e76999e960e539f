<script setup lang="ts">
/** Piping over a part of the finished outside, from one height to another: of what, how proud, and what it takes. */
import { computed } from "vue";
import type { Tier } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import { mediaOf, useTier } from "@/lenses/parts/tier";
import MediumField from "@/order/MediumField.vue";
import FoldedPart from "@/ui/FoldedPart.vue";

type Region = Tier["regions"][number];
const { order, tier, planned, change } = useTier();
const regions = computed(() => tier.value?.regions ?? []);
const told = (index: number) => planned.value?.regions[`region_${index + 1}`];
const most = useHandbook().limit("regions").high;

function alter(index: number, to: Partial<Region>): void {
  change((tier) => {
    tier.regions = tier.regions.map((region, at) => (at === index ? { ...region, ...to } : region));
  });
}

/** The first runs round the foot, the next from where the last one ends up over the top. */
function add(): void {
  change((tier) => {
    const medium = "medium" in tier.final ? tier.final.medium : tier.crumb.medium;
    const from = Math.max(0, ...tier.regions.map((region) => region.high));
    const band = tier.regions.length && from < 0.95 ? { low: from, high: 1 } : { low: 0, high: 0.3 };
    tier.regions.push({ ...band, medium });
  });
}
</script>

<template>
  <FoldedPart
    v-if="planned && !planned.foot"
    :key="order.tier"
    name="Piped regions"
    says="none"
    :open="regions.length > 0"
  >
    <div v-for="(region, index) in regions" :key="index" class="region">
      <KindFields :part="`regions/${index}`" />
      <MediumField
        label="Region"
        :medium="region.medium"
        :colour="region.colour"
        :kinds="mediaOf('regions')"
        @medium="(medium) => alter(index, { medium })"
        @colour="(colour) => alter(index, { colour })"
      />
      <FigureRow label="Begins, up the tier" :figure="told(index)?.low" />
      <FigureRow label="Ends, up the tier" :figure="told(index)?.high" />
      <FigureRow label="Piped, weighs" :figure="told(index)?.weight" />
      <div class="same">
        <button class="act" @click="change((tier) => tier.regions.splice(index, 1))">
          Remove this region
        </button>
      </div>
    </div>
    <div v-if="regions.length < most" class="same">
      <button class="act" @click="add">{{ regions.length ? "Another region" : "Pipe a region" }}</button>
    </div>
  </FoldedPart>
</template>

<style scoped>
.region {
  padding-bottom: 10px;
}
</style>
