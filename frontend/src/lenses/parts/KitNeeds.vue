<script setup lang="ts">
/** What the plan asks of the kit at this lens: what is owned, what would do instead, what is to be got. */
import { computed } from "vue";
import type { KitNeed } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";
import { useKit } from "@/kitchen/kit";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "./FigureRow.vue";
import { useTier } from "./tier";

const props = defineProps<{ tools: readonly string[]; whole?: boolean }>();
const handbook = useHandbook();
const settings = useSettings();
const kit = useKit();
const { order } = useTier();
const needs = computed(() =>
  Object.values(order.plan?.kit ?? {}).filter(
    (need) =>
      props.tools.includes(need.tool) && (props.whole || need.tier === null || need.tier === order.tier + 1),
  ),
);

const shapeWords = (shape: string): string => handbook.wordOf("tins", shape);

function words(need: KitNeed): string {
  const shaped = ["tin", "board", "base board"].includes(need.tool) && need.shape !== "round";
  const shape = !shaped ? "" : need.shape === "outline" ? "cut-out " : `${shapeWords(need.shape)} `;
  const many = need.count > 1 ? `, ${need.count} of them` : "";
  const tier = props.whole && need.tier !== null ? `, ${order.plan?.tiers[need.tier - 1]?.name}` : "";
  const name = `${shape}${need.tool}${many}${tier}`;
  return (name[0]?.toUpperCase() ?? "") + name.slice(1);
}

function status(need: KitNeed): string {
  if (need.status === "have") return need.leaves ? "in your sizes; leaves with the cake" : "have";
  if (need.status === "get") return "get one";
  if (!need.owned) return "next best";
  const shape =
    need.owned_shape && need.owned_shape !== need.shape ? `, ${shapeWords(need.owned_shape)}` : "";
  const long = need.owned_length ? ` × ${settings.words(need.owned_length)}` : "";
  return `next best: ${settings.words(need.owned)}${long}${shape}`;
}
</script>

<template>
  <section v-if="needs.length">
    <h3>From your kit</h3>
    <div v-for="(need, index) in needs" :key="index" class="need">
      <FigureRow :label="words(need)" :figure="need.size" />
      <FigureRow label="long" :figure="need.length" />
      <p :class="need.status.replace(' ', '-')">
        <b>{{ status(need) }}</b><template v-if="need.changes">. {{ need.changes }}</template>
      </p>
    </div>
    <p v-if="kit.trouble" class="wrong" role="alert">{{ kit.trouble }}</p>
  </section>
</template>

<style scoped>
.need {
  border-bottom: 1px solid var(--rule);
}

.need :deep(.row) {
  border: 0;
}

.need p {
  padding-bottom: 7px;
  color: var(--soft);
}

.need p.have b {
  color: var(--teal);
}

.need p.get b,
.need p.next-best b {
  color: var(--amber);
}
</style>
