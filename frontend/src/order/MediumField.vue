<script setup lang="ts">
/** Which medium, and which of the design's colours it is mixed to. */
import { computed } from "vue";
import type { Medium } from "@/api/types";
import { copied } from "@/base/copy";
import { stable } from "@/base/stable";
import { useHandbook } from "@/kitchen/handbook";
import { usePantry } from "@/kitchen/pantry";
import { useOrder } from "./order";

const props = defineProps<{
  label: string;
  medium: string;
  colour: string | null | undefined;
  kinds: readonly string[];
  plain?: boolean;
  /** Say below it how it sets. */
  sets?: boolean;
}>();
const emit = defineEmits<{ medium: [key: string]; colour: [name: string | null] }>();
const handbook = useHandbook();
const order = useOrder();
const pantry = usePantry();

/** Those of the program, under those of the kitchen's pantry, under those this order carries with it. */
const known = stable(() => {
  const found = new Map<string, Medium>();
  for (const media of [handbook.media, pantry.pantry?.media ?? [], order.document?.media ?? []])
    for (const medium of media) found.set(medium.key, medium);
  return [...found.values()];
});
const media = computed(() =>
  known.value.filter((medium) => props.kinds.includes(medium.kind) || medium.key === props.medium),
);
const chosen = computed(
  () => known.value.find((medium) => medium.key === props.medium)?.name ?? props.medium,
);
/** How the medium in hand sets, and so what can be done with it when. */
const firms = computed(() => known.value.find((medium) => medium.key === props.medium)?.firms);

/** An order carries the kitchen's own media with it, so that it can be read anywhere. */
function choose(key: string): void {
  const own = pantry.pantry?.media.find((medium) => medium.key === key);
  if (own && !order.document?.media.some((medium) => medium.key === key))
    order.edit((draft) => draft.media.push(copied(own)));
  emit("medium", key);
}
const colours = stable(() => order.document?.design.colours ?? []);
</script>

<template>
  <div class="medium">
    <ElSelect :model-value="medium" :aria-label="`${label}: ${chosen}`" class="which" @change="choose">
      <ElOption v-for="one in media" :key="one.key" :value="one.key" :label="one.name" />
    </ElSelect>
    <ElSelect
      v-if="!plain"
      :model-value="colour ?? ''"
      :empty-values="[null, undefined]"
      :aria-label="`${label}, colour: ${colour ?? 'uncoloured'}`"
      class="colour"
      @change="(name: string) => emit('colour', name || null)"
    >
      <ElOption value="" label="uncoloured" />
      <ElOption v-for="one in colours" :key="one.name" :value="one.name" :label="one.name">
        <span class="swatch" :style="{ background: one.hex }" />{{ one.name }}
      </ElOption>
    </ElSelect>
    <p v-if="sets && firms">{{ firms }}</p>
  </div>
</template>

<style scoped>
.medium {
  display: grid;
  grid-template-columns: 1fr 116px;
  gap: 10px;
}

p {
  grid-column: 1 / -1;
  color: var(--soft);
}

.swatch {
  display: inline-block;
  width: 18px;
  height: 18px;
  margin-right: 8px;
  border: 1px solid var(--ink);
  vertical-align: -3px;
}
</style>
