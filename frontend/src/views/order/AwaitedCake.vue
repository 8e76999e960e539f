<script setup lang="ts">
/** The cake in grey until its plan is ready: as it last stood on the shelf, or as plain tiers. */
import { computed, ref, shallowRef, watch } from "vue";
import { answered, api } from "@/api/client";
import type { Card, Tier } from "@/api/types";
import { useElementSize } from "@/base/size";
import ShelfCake from "@/views/shelf/ShelfCake.vue";

const props = defineProps<{ id: string; tiers: Tier[] }>();
const frame = ref<HTMLElement>();
const size = useElementSize(frame);
const card = shallowRef<Card | null>(null);
const LAYER_MM = 30;

watch(
  () => props.id,
  async (id) => {
    card.value = null;
    const params = { path: { id } };
    const found = (await answered(api.GET("/api/orders/{id}/card", { params })).catch(
      () => null,
    )) as Card | null;
    if (id === props.id) card.value = found;
  },
  { immediate: true },
);

const outside = computed(() => card.value?.outside);
/** Each tier as wide as its tin and about as high as its layers, bottom first, mm. */
const boxes = computed(() => {
  let foot = 0;
  return props.tiers.map(({ tin_diameter_mm: wide, layers }) => {
    const high = layers?.target_height_mm ?? (layers?.count ?? 3) * (layers?.height_mm ?? LAYER_MM);
    foot += high;
    return { wide, high, top: foot };
  });
});
const whole = computed(() => ({
  wide: outside.value?.base_diameter.value ?? Math.max(...boxes.value.map((box) => box.wide)),
  high: outside.value?.height.value ?? Math.max(...boxes.value.map((box) => box.top)),
}));
const scale = computed(() =>
  Math.max(
    0,
    Math.min((size.width.value - 80) / whole.value.wide, (size.height.value - 120) / whole.value.high),
  ),
);
</script>

<template>
  <div ref="frame" class="awaited">
    <ShelfCake v-if="outside" :outside="outside" :scale="scale" />
    <svg v-else :width="whole.wide * scale + 2" :height="whole.high * scale + 2" aria-hidden="true">
      <rect
        v-for="(box, at) in boxes"
        :key="at"
        :x="1 + ((whole.wide - box.wide) / 2) * scale"
        :y="1 + (whole.high - box.top) * scale"
        :width="box.wide * scale"
        :height="box.high * scale"
        fill="var(--shelf)"
        stroke="var(--ink)"
      />
    </svg>
  </div>
</template>

<style scoped>
.awaited {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  filter: grayscale(1);
  opacity: 0.4;
  animation: appear 1ms 0.25s both;
}

@keyframes appear {
  from {
    visibility: hidden;
  }
}
</style>
