<script setup lang="ts">
/** What the kitchen makes and buys: recipes, prices, the larder, and what its work costs. */
import { ref } from "vue";
import { usePantry } from "@/kitchen/pantry";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import KitchenPage from "@/ui/KitchenPage.vue";
import WholeNotes from "@/ui/WholeNotes.vue";
import ItemTable from "./ItemTable.vue";
import RecipeBook from "./RecipeBook.vue";
import TermsForm from "./TermsForm.vue";
import ThingBook from "./ThingBook.vue";

type Room = "recipes" | "things" | "prices" | "larder" | "terms";
const pantry = usePantry();
const ROOMS = [
  { value: "recipes", words: "Recipes" },
  { value: "things", words: "What we use" },
  { value: "prices", words: "Prices" },
  { value: "larder", words: "Larder" },
  { value: "terms", words: "What work costs" },
] as const;
const room = ref<Room>("recipes");
</script>

<template>
  <KitchenPage title="Recipes and prices" :whole="pantry">
    <main class="room">
      <div class="rooms">
        <ChoiceRow
          label="What to look at"
          :value="room"
          :choices="ROOMS"
          @change="(value) => (room = value)"
        />
      </div>
      <WholeNotes :whole="pantry" at-fields />
      <template v-if="pantry.pantry">
        <RecipeBook v-if="room === 'recipes'" />
        <ThingBook v-else-if="room === 'things'" />
        <ItemTable v-else-if="room === 'prices'" key="prices" what="prices" />
        <ItemTable v-else-if="room === 'larder'" key="larder" what="larder" />
        <TermsForm v-else />
      </template>
      <p v-else-if="!pantry.trouble">Opening the pantry …</p>
    </main>
  </KitchenPage>
</template>

<style scoped>
.room {
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-height: 0;
  padding: 18px 22px;
}

.rooms {
  max-width: 800px;
}
</style>
