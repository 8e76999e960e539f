<script setup lang="ts">
/** Hands and places: who works in this kitchen and when, and what it has room for. Every clock keeps to it. */
import { useHandbook } from "@/kitchen/handbook";
import { usePlaces } from "@/kitchen/places";
import KitchenPage from "@/ui/KitchenPage.vue";
import MeasureField from "@/ui/MeasureField.vue";
import WholeNotes from "@/ui/WholeNotes.vue";
import ColdShelves from "./ColdShelves.vue";
import HandsWeek from "./HandsWeek.vue";

const kitchen = usePlaces();
const handbook = useHandbook();

const COUNTS = [
  {
    field: "ovens",
    words: "Ovens",
    effect: "Each bakes one tier at a time. How wide one is stands in Our usual.",
  },
  { field: "mixers", words: "Mixers", effect: "One for each batter or bowl that is being mixed." },
  { field: "turntables", words: "Turntables", effect: "One for each tier that is being coated or piped." },
  { field: "benches", words: "Places at a bench", effect: "One for each piece of work at the same time." },
] as const;

/** Another pair of hands works the same hours as the last. */
function another(): void {
  void kitchen.change((kept) => {
    const last = kept.hands.at(-1);
    if (last) kept.hands.push({ name: "", week: [...last.week], off: [] });
  });
}
</script>

<template>
  <KitchenPage title="Hands and places" :whole="kitchen">
    <main class="room">
      <p class="explain">
        Who works in this kitchen and when, and what there is room for. The clock of every order keeps to it.
      </p>
      <WholeNotes :whole="kitchen" at-fields />
      <template v-if="kitchen.places">
        <h2>Hands</h2>
        <HandsWeek
          v-for="(hands, index) in kitchen.places.hands"
          :key="index"
          :hands="hands"
          :index="index"
          :alone="kitchen.places.hands.length === 1"
        />
        <button
          v-if="kitchen.places.hands.length < handbook.limit('hands').high"
          class="act"
          @click="another"
        >
          Add a pair of hands
        </button>
        <h2>Places</h2>
        <ul class="counts">
          <li v-for="one in COUNTS" :key="one.field">
            <MeasureField
              :label="one.words"
              limit="resources"
              :value="kitchen.places[one.field]"
              @change="
                (value) => value !== null && kitchen.change((kept) => (kept[one.field] = Math.round(value)))
              "
            />
            <p>{{ one.effect }}</p>
            <p v-if="kitchen.wrongAt(`#/places/${one.field}`)" class="wrong" role="alert">
              {{ kitchen.wrongAt(`#/places/${one.field}`) }}
            </p>
          </li>
        </ul>
        <div class="cold">
          <ColdShelves where="fridge" title="Fridge" part="shelf" parts="shelves" />
          <ColdShelves where="freezer" title="Freezer" part="drawer" parts="drawers" />
        </div>
      </template>
      <p v-else-if="!kitchen.trouble">Opening hands and places …</p>
    </main>
  </KitchenPage>
</template>

<style scoped>
.room {
  position: relative;
  overflow: hidden auto;
  padding: 18px 22px 40px;
}

.explain {
  max-width: 800px;
  margin-bottom: 6px;
  color: var(--soft);
}

h2 {
  margin: 18px 0 6px;
  font: 600 24px/1.2 var(--serif);
}

.counts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 0 40px;
}

.counts p {
  color: var(--soft);
  font-size: 15px;
}

.counts .wrong {
  color: var(--trouble);
}

.cold {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(540px, 100%), 1fr));
  gap: 0 44px;
}
</style>
