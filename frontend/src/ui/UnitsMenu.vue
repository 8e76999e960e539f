<script setup lang="ts">
/** Length and weight units, chosen apart. */
import { useSettings } from "@/kitchen/settings";

const settings = useSettings();
</script>

<template>
  <div class="units">
    <label>
      <span class="unseen">Lengths in</span>
      <select v-model="settings.length">
        <option value="in">in</option>
        <option value="cm">cm</option>
        <option value="mm">mm</option>
      </select>
    </label>
    <label>
      <span class="unseen">Weights in</span>
      <select v-model="settings.weight">
        <option value="g">g</option>
        <option value="oz">lb oz</option>
      </select>
    </label>
  </div>
</template>

<style scoped>
.units {
  display: flex;
  gap: 4px;
}

select {
  height: 44px;
  padding: 0 6px;
  border: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

select:hover {
  background: var(--tint);
}

option {
  background: var(--panel);
}
</style>
