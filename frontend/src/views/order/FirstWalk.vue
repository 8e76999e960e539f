<script setup lang="ts">
/** A short walk for whoever begins the first cake: four slips of paper on the screen itself, until they are put away. */
import { useRoute, useRouter } from "vue-router";

const route = useRoute();
const router = useRouter();
const SLIPS = [
  { at: "spine", words: "Go down these in the order of the work." },
  { at: "cake", words: "Press a tier to take it in hand. Type its tin, or draw its edge out." },
  { at: "head", words: "The figure to work by stands here. Press it, and it shows how it comes about." },
  { at: "bowls", words: "What to mix, for every step together." },
] as const;

function putAway(): void {
  void router.replace({ query: { ...route.query, walk: undefined } });
}
</script>

<template>
  <aside v-if="route.query.walk" class="walk" aria-label="A short walk">
    <p v-for="(slip, at) in SLIPS" :key="slip.at" :class="slip.at">
      <b>{{ at + 1 }}</b> {{ slip.words }}
    </p>
    <button class="act main" @click="putAway">Put these slips away</button>
  </aside>
</template>

<style scoped>
/* Nothing under a slip is kept from being pressed. */
.walk {
  position: absolute;
  z-index: 4;
  inset: 0;
  pointer-events: none;
}

p {
  position: absolute;
  width: 216px;
  padding: 10px 12px;
  border-left: 4px solid var(--amber-line);
  background: var(--panel);
  box-shadow: 0 2px 10px rgb(51 36 27 / 22%);
}

b {
  color: var(--amber);
  font-family: var(--serif);
}

.spine {
  top: 440px;
  left: 122px;
}

.cake {
  top: 76px;
  left: 330px;
}

.head {
  top: 92px;
  right: 366px;
}

.bowls {
  right: 366px;
  bottom: 70px;
}

.act {
  position: absolute;
  bottom: 74px;
  left: 122px;
  pointer-events: auto;
}

@media (width < 1180px) {
  .head,
  .bowls {
    right: 332px;
  }

  .cake {
    left: 150px;
  }
}

/* In one column they stand above the drawing, one below the other. */
@media (width < 900px) {
  .walk {
    position: static;
    grid-area: walk;
    padding: 10px;
  }

  p,
  .act {
    position: static;
    width: auto;
    margin: 0 0 8px;
    box-shadow: none;
  }
}

@media print {
  .walk {
    display: none;
  }
}
</style>
