<script setup lang="ts">
/** What the kitchen makes and buys: recipes, prices, the larder, and what its work costs. */
import { computed, onBeforeUnmount, onMounted, ref } from "vue";
import { useRouter } from "vue-router";
import ChoiceRow from "@/shared/ChoiceRow.vue";
import { usePantry } from "@/shared/pantry";
import UnitsMenu from "@/shared/UnitsMenu.vue";
import ItemTable from "./ItemTable.vue";
import RecipeBook from "./RecipeBook.vue";
import ThingBook from "./ThingBook.vue";
import TermsForm from "./TermsForm.vue";

type Room = "recipes" | "things" | "prices" | "larder" | "terms";
const pantry = usePantry();
const router = useRouter();
const ROOMS = [
  { value: "recipes", words: "Recipes" },
  { value: "things", words: "What we use" },
  { value: "prices", words: "Prices" },
  { value: "larder", words: "Larder" },
  { value: "terms", words: "What work costs" },
] as const;
const room = ref<Room>("recipes");
const from = computed(() => (history.state as { back?: string }).back);

/** How the last change fares; where one was refused, its own place says so. */
const kept = computed(() =>
  pantry.underway > 0
    ? "Saving …"
    : pantry.trouble || !pantry.canUndo
      ? ""
      : pantry.joined
        ? "Saved, beside somebody else’s change"
        : "Saved",
);

function back(): void {
  if (from.value && from.value !== "/") router.back();
  else void router.push("/");
}

/** Ctrl Z and Ctrl Y, where no text is being typed: a field has an undo of its own. */
function onKey(event: KeyboardEvent): void {
  const typing = (event.target as HTMLElement).matches("input, textarea, select");
  const key = event.key.toLowerCase();
  if (typing || !(event.ctrlKey || event.metaKey) || (key !== "z" && key !== "y")) return;
  event.preventDefault();
  void (key === "y" || event.shiftKey ? pantry.redo() : pantry.undo());
}

function warnIfUnsaved(event: BeforeUnloadEvent): void {
  if (pantry.underway > 0) event.preventDefault();
}

onMounted(() => {
  window.addEventListener("beforeunload", warnIfUnsaved);
  document.title = "Recipes and prices · Amber Spread";
  window.addEventListener("keydown", onKey);
  void pantry.open();
});
onBeforeUnmount(() => {
  window.removeEventListener("beforeunload", warnIfUnsaved);
  window.removeEventListener("keydown", onKey);
});
</script>

<template>
  <div class="home">
    <header class="bar">
      <RouterLink to="/" class="brand" aria-label="Amber Spread: back to the shelf"
        >Amber <b>Spread</b></RouterLink
      >
      <h1>Recipes and prices</h1>
      <span class="grow" />
      <span class="state" role="status">{{ kept }}</span>
      <button class="act bare" :disabled="!pantry.canUndo" @click="pantry.undo()">Undo</button>
      <button class="act bare" :disabled="!pantry.canRedo" @click="pantry.redo()">Redo</button>
      <UnitsMenu />
      <button class="act" @click="back">
        {{ from && from !== "/" ? "Back to the order" : "Back to the shelf" }}
      </button>
    </header>
    <main class="room">
      <div class="rooms">
        <ChoiceRow
          label="What to look at"
          :value="room"
          :choices="ROOMS"
          @change="(value) => (room = value)"
        />
      </div>
      <p v-if="pantry.trouble && !pantry.complaints.length" class="banner" role="alert">
        {{ pantry.trouble }} <button class="act" @click="pantry.open()">Look again</button>
      </p>
      <template v-if="pantry.pantry">
        <RecipeBook v-if="room === 'recipes'" />
        <ThingBook v-else-if="room === 'things'" />
        <ItemTable v-else-if="room === 'prices'" key="prices" what="prices" />
        <ItemTable v-else-if="room === 'larder'" key="larder" what="larder" />
        <TermsForm v-else />
      </template>
      <p v-else-if="!pantry.trouble">Opening the pantry …</p>
    </main>
  </div>
</template>

<style scoped>
.home {
  display: grid;
  grid-template-rows: 56px minmax(0, 1fr);
  height: 100%;
}

.grow {
  flex: 1;
}

.room {
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-height: 0;
  padding: 18px 22px;
}

.state {
  color: var(--soft);
}

.rooms {
  max-width: 800px;
}

.banner {
  padding: 10px 14px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}
</style>
