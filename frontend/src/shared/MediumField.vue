<script setup lang="ts">
/** Which medium, and which of the design's colours it is mixed to. */
import { useOrder } from "@/order/order";
import { useHandbook } from "./handbook";
import { stable } from "./stable";

const props = defineProps<{
  label: string;
  medium: string;
  colour: string | null | undefined;
  kinds: readonly string[];
  plain?: boolean;
}>();
const emit = defineEmits<{ medium: [key: string]; colour: [name: string | null] }>();
const handbook = useHandbook();
const order = useOrder();

const media = stable(() => {
  const own = order.document?.media ?? [];
  const kept = handbook.media.filter((medium) => !own.some((mine) => mine.key === medium.key));
  return [...kept, ...own].filter(
    (medium) => props.kinds.includes(medium.kind) || medium.key === props.medium,
  );
});
const colours = stable(() => order.document?.design.colours ?? []);
</script>

<template>
  <div class="medium">
    <ElSelect
      :model-value="medium"
      :aria-label="label"
      class="which"
      @change="(key: string) => emit('medium', key)"
    >
      <ElOption v-for="one in media" :key="one.key" :value="one.key" :label="one.name" />
    </ElSelect>
    <ElSelect
      v-if="!plain"
      :model-value="colour ?? ''"
      :empty-values="[null, undefined]"
      :aria-label="`${label}: colour`"
      class="colour"
      @change="(name: string) => emit('colour', name || null)"
    >
      <ElOption value="" label="uncoloured" />
      <ElOption v-for="one in colours" :key="one.name" :value="one.name" :label="one.name">
        <span class="swatch" :style="{ background: one.hex }" />{{ one.name }}
      </ElOption>
    </ElSelect>
  </div>
</template>

<style scoped>
.medium {
  display: grid;
  grid-template-columns: 1fr 116px;
  gap: 10px;
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
