<script setup lang="ts">
import { onMounted, ref } from "vue";
import { mishapWords } from "@/api/mishap";
import { useHandbook } from "@/kitchen/handbook";

const handbook = useHandbook();
const trouble = ref(false);

async function begin(): Promise<void> {
  trouble.value = false;
  try {
    await handbook.open();
  } catch {
    trouble.value = true;
  }
}

onMounted(begin);
</script>

<template>
  <p v-if="mishapWords" class="mishap" role="alert">
    {{ mishapWords }} <button class="act" @click="mishapWords = ''">Read</button>
  </p>
  <RouterView v-if="handbook.book" />
  <main v-else class="waiting" aria-live="polite">
    <template v-if="trouble">
      <h1>The kitchen's server does not answer</h1>
      <p>Your orders are safe where they are. Start Amber Spread on this machine, then try again.</p>
      <button class="act main" @click="begin">Try again</button>
    </template>
    <p v-else>Opening …</p>
  </main>
</template>

<style scoped>
.mishap {
  position: fixed;
  z-index: 3000;
  bottom: 16px;
  left: 50%;
  display: flex;
  gap: 16px;
  align-items: center;
  max-width: 90vw;
  padding: 10px 16px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
  box-shadow: 0 2px 10px rgb(51 36 27 / 25%);
  translate: -50% 0;
}

.waiting {
  display: grid;
  gap: 16px;
  place-content: center;
  justify-items: start;
  height: 100%;
  padding: 24px;
}
</style>
