<script setup lang="ts">
/** The recipes: those of the program and the kitchen's own, changed where they stand and scaled to any amount. */
import { computed } from "vue";
import { usePantry } from "@/kitchen/pantry";
import ScaledRecipe from "@/lenses/parts/ScaledRecipe.vue";
import PantryFiles from "./PantryFiles.vue";
import RecipeForm from "./RecipeForm.vue";
import { useRecipes } from "./recipes";

const pantry = usePantry();
const { key, draft, drafts, wantedText, scaled, wrong, recipes, own, inUse, changed, rival, ...act } =
  useRecipes();
const { choose, keep, leave, dropOwn, use, another } = act;
const groups = computed(() => [
  { words: "Coats, fillings and sheets", recipes: recipes.value.filter((one) => !one.cake) },
  { words: "Cakes", recipes: recipes.value.filter((one) => one.cake) },
]);
const medium = computed(() => pantry.larder?.media.find((one) => one.key === draft.value?.makes));
</script>

<template>
  <section class="book">
    <nav aria-label="Recipes">
      <div v-for="group in groups" :key="group.words">
        <h2>{{ group.words }}</h2>
        <button
          v-for="one in group.recipes"
          :key="one.key"
          :class="{ chosen: one.key === key }"
          :aria-current="one.key === key ? 'true' : undefined"
          @click="choose(one)"
        >
          {{ one.name }}
          <span v-if="drafts[one.key]" class="own">changed, not kept</span>
          <span v-else-if="own.has(one.key)" class="own">ours</span>
          <span v-if="!one.cake && inUse[one.makes] !== one.key" class="own">not in use</span>
        </button>
      </div>
    </nav>
    <RecipeForm v-if="draft" :key="key" v-model="draft" />
    <aside>
      <div class="acts">
        <button class="act main" :disabled="!changed" @click="keep">Keep these changes</button>
        <button class="act" :disabled="!changed" @click="leave">Leave it as it was</button>
        <button v-if="rival" class="act" :disabled="changed" @click="use">Use this one from now on</button>
        <button v-if="own.has(key)" class="act" @click="dropOwn">Take ours away</button>
      </div>
      <p
        v-if="
          !wrong &&
          pantry.complaints.length &&
          !pantry.complaints.some((one) => one.pointer.startsWith('#/lines'))
        "
        class="wrong"
        role="alert"
      >
        {{ pantry.trouble }}
      </p>
      <label class="line">
        <span>Scale it to</span>
        <input v-model="wantedText" type="text" placeholder="1 kg" aria-label="Scale it to" />
      </label>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <ScaledRecipe v-if="scaled" :recipe="scaled" open />
      <p v-if="medium && !draft?.cake" class="soft">{{ medium.firms }}</p>
      <div class="acts">
        <button class="act" @click="another(false)">A recipe of ours</button>
        <button class="act" @click="another(true)">A cake of ours</button>
      </div>
      <PantryFiles what="recipes" words="recipes" />
    </aside>
  </section>
</template>

<style scoped src="./book.css"></style>
