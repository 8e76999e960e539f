<script setup lang="ts">
import { onMounted, ref } from "vue";
import { useHandbook } from "@/shared/handbook";

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
.waiting {
  display: grid;
  gap: 16px;
  place-content: center;
  justify-items: start;
  height: 100%;
  padding: 24px;
}
</style>
