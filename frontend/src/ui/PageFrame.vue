<script setup lang="ts">
/** A page beside the shelf and the orders: its name, what can be done on it, and the way back. */
import { computed, onMounted } from "vue";
import { useRouter } from "vue-router";

const props = defineProps<{ title: string }>();
const router = useRouter();
const from = computed(() => (history.state as { back?: string }).back);

function back(): void {
  if (from.value && from.value !== "/") router.back();
  else void router.push("/");
}

onMounted(() => (document.title = `${props.title} · Amber Spread`));
</script>

<template>
  <div class="home">
    <header class="bar">
      <RouterLink to="/" class="brand" aria-label="Amber Spread: back to the shelf"
        >Amber <b>Spread</b></RouterLink
      >
      <h1>{{ title }}</h1>
      <slot name="beside" />
      <span class="grow" />
      <slot name="acts" />
      <button class="act" @click="back">
        {{ from?.startsWith("/orders/") ? "Back to the order" : "Back to the shelf" }}
      </button>
    </header>
    <slot />
  </div>
</template>
