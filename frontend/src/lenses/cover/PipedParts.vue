<script setup lang="ts" generic="Kind extends 'borders' | 'regions'">
/** What is piped on a finished tier, one after another: what each asks for, of what it is, and what it takes. */
import { computed } from "vue";
import type { Figure, Tier } from "@/api/types";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import { mediaOf, useTier } from "@/lenses/parts/tier";
import MediumField from "@/order/MediumField.vue";
import { newId } from "@/order/partIds";
import FoldedPart from "@/ui/FoldedPart.vue";

type One = Tier[Kind][number];
const props = defineProps<{
  part: Kind;
  name: string;
  /** What one of them is called, as in "Another border". */
  one: string;
  most: number;
  /** The figures of each. */
  rows: (one: One) => readonly { label: string; figure: Figure | undefined }[];
  /** What is asked of one, where that is not all. */
  asked?: (one: One) => readonly string[] | undefined;
  /** A new one, without its id and its medium, which is that of the coat. */
  begin: (tier: Tier) => Omit<One, "medium" | "id">;
}>();
const { order, tier, change } = useTier();
const parts = computed(() => (tier.value?.[props.part] ?? []) as One[]);

function alter(how: (parts: One[]) => One[]): void {
  change((tier) => {
    (tier[props.part] as One[]) = how(tier[props.part] as One[]);
  });
}

function set(index: number, to: Partial<One>): void {
  alter((list) => list.map((one, at) => (at === index ? { ...one, ...to } : one)));
}

function add(): void {
  change((tier) => {
    const medium = "medium" in tier.final ? tier.final.medium : tier.crumb.medium;
    (tier[props.part] as One[]).push({ ...props.begin(tier), id: newId(), medium } as One);
  });
}
</script>

<template>
  <FoldedPart :key="order.tier" :name="name" says="none" :open="parts.length > 0">
    <div v-for="(piped, index) in parts" :key="piped.id" class="piped">
      <slot :piped="piped" :set="(to: Partial<One>) => set(index, to)" />
      <KindFields :part="`${part}/${index}`" :only="asked?.(piped)" />
      <MediumField
        :label="name"
        :medium="piped.medium"
        :colour="piped.colour"
        :kinds="mediaOf(part)"
        @medium="(medium) => set(index, { medium } as Partial<One>)"
        @colour="(colour) => set(index, { colour } as Partial<One>)"
      />
      <FigureRow v-for="row in rows(piped)" :key="row.label" :label="row.label" :figure="row.figure" />
      <div class="same">
        <button class="act" @click="alter((list) => list.toSpliced(index, 1))">Remove this {{ one }}</button>
      </div>
    </div>
    <div v-if="parts.length < most" class="same">
      <button class="act" @click="add">{{ parts.length ? `Another ${one}` : `Add a ${one}` }}</button>
    </div>
  </FoldedPart>
</template>

<style scoped>
.piped {
  padding-bottom: 10px;
}
</style>
