<script setup lang="ts">
/** What the words on the screens mean, each with a small drawing. */
import { computed, ref } from "vue";
import WordDrawing from "./WordDrawing.vue";
import { wordsLike } from "./words";
import { useOpened } from "@/ui/opened";

const open = useOpened().opened("words");
const sought = ref("");
const found = computed(() => wordsLike(sought.value));
</script>

<template>
  <ElDialog v-model="open" title="Words of the trade" width="760" top="6vh">
    <label class="seek">
      <span>Look for</span>
      <input
        v-model="sought"
        type="text"
        autocomplete="off"
        spellcheck="false"
        placeholder="dam, lap, card …"
      />
    </label>
    <p v-if="!found.length" role="status">No word here is like that. Try another, or a part of one.</p>
    <dl>
      <div v-for="one in found" :key="one.word">
        <WordDrawing :scene="one.scene" :part="one.part" />
        <dt>{{ one.word }}</dt>
        <dd>{{ one.means }}</dd>
      </div>
    </dl>
    <slot />
  </ElDialog>
</template>

<style scoped>
.seek {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 14px;
  align-items: center;
  margin-bottom: 12px;
}

dl {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(310px, 100%), 1fr));
  gap: 14px 22px;
  max-height: 58vh;
  margin: 0;
  overflow: auto;
}

dl div {
  display: grid;
  grid-template: auto 1fr / 96px 1fr;
  column-gap: 14px;
}

svg {
  grid-row: 1 / 3;
}

dt {
  font: 600 18px var(--serif);
}

dd {
  margin: 0;
  color: var(--soft);
}
</style>
