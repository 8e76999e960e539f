<script setup lang="ts">
/** A recipe made for an amount: what goes in, by weight first, and how it is made. */
import { computed } from "vue";
import type { Scaled } from "@/api/types";
import { weighed } from "@/base/units";
import { useSettings } from "@/kitchen/settings";
import FigureValue from "@/ui/FigureValue.vue";

const props = defineProps<{ recipe: Scaled; open?: boolean }>();
const settings = useSettings();
/** What is made beyond what was asked for, where the recipe comes in steps; nothing below what a scale shows. */
const more = computed(() => {
  const { makes, wanted } = props.recipe;
  const unit = settings.weight;
  const value = weighed(makes.value, unit, "up") - weighed(wanted.value, unit, "up");
  return value > 0.5 ? settings.words({ value, unit: "g" }) : "";
});
</script>

<template>
  <details :open="open">
    <summary>
      <span>{{ recipe.name }}</span>
      <span class="makes">{{ settings.words(recipe.makes) }}</span>
    </summary>
    <ul>
      <li v-for="(line, key) in recipe.lines" :key="key">
        <span>{{ line.name }}</span>
        <span class="amount">
          <span v-if="line.count" class="also">{{ settings.words(line.count) }} pieces,</span>
          <span v-else-if="line.volume" class="also">{{ settings.words(line.volume) }},</span>
          <FigureValue :figure="line.weight" :label="line.name" />
        </span>
      </li>
      <li v-if="more">
        <span>Asked for</span>
        <FigureValue :figure="recipe.wanted" label="Asked for" />
      </li>
      <li v-if="more" class="also">
        {{ more }} more is made, so that whole eggs and packets go in and it comes in easy shares.
      </li>
      <li>
        <span>The recipe, made</span>
        <FigureValue :figure="recipe.factor" label="The recipe, made" />
      </li>
    </ul>
    <ol v-if="recipe.steps.length">
      <li v-for="step in recipe.steps" :key="step">{{ step }}</li>
    </ol>
  </details>
</template>

<style scoped>
details {
  border-bottom: 1px solid var(--rule);
}

summary {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 44px;
  cursor: pointer;
}

summary::before {
  content: "▶";
  margin-right: 8px;
  font-size: 11px;
}

details[open] summary::before {
  rotate: 90deg;
}

summary > :first-of-type {
  flex: 1;
}

.makes {
  font: 600 19px var(--serif);
}

ul {
  padding: 0 0 8px 12px;
}

ul li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  border-top: 1px solid var(--rule);
}

.amount {
  display: flex;
  gap: 6px;
  align-items: center;
}

.also {
  color: var(--soft);
}

ol {
  margin: 0;
  padding: 0 0 12px 30px;
}

ol li {
  padding: 3px 0;
}
</style>
