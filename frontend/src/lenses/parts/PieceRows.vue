<script setup lang="ts">
/** The pieces of a cover with their measures; pointed at, a piece lights up on the mat and on the cake. */
import { computed } from "vue";
import type { Piece } from "@/api/types";
import { useDesk } from "@/ui/desk";
import FigureRow from "./FigureRow.vue";
import { SIZE_WORDS } from "./pieces";
import { hexOf } from "@/drawing/tone";

const props = defineProps<{ pieces: Record<string, Piece>; place: string }>();
/** What carries a piece is cut as that is, and said apart. */
const cut = computed(() =>
  Object.fromEntries(Object.entries(props.pieces).filter(([, piece]) => piece.stuff === "sheet")),
);
const desk = useDesk();
</script>

<template>
  <div
    v-for="(piece, key) in cut"
    :key="key"
    class="piece"
    :class="{ lit: desk.lit === `${place}.${key}` }"
    v-on="desk.lights(`${place}.${key}`)"
  >
    <h4>
      <span class="swatch" :style="{ background: hexOf(piece.paint) }" />{{ piece.name
      }}<template v-if="piece.count.value > 1">, {{ piece.count.value }} of them</template>
    </h4>
    <FigureRow
      v-for="(size, name) in piece.sizes"
      :key="name"
      :label="SIZE_WORDS[name] ?? name"
      :figure="size"
    />
  </div>
</template>

<style scoped>
.piece {
  margin: 0 -20px;
  padding: 6px 20px 0;
  border-left: 4px solid transparent;
}

.piece.lit {
  border-color: var(--amber-line);
  background: var(--hover);
}

h4 {
  margin: 6px 0 0;
  font: 600 17px var(--serif);
}

.swatch {
  display: inline-block;
  width: 16px;
  height: 16px;
  margin-right: 8px;
  border: 1px solid var(--ink);
  vertical-align: -2px;
}
</style>
