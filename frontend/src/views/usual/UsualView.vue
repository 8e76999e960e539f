<script setup lang="ts">
/** The kitchen's usual: every thickness, allowance and rule of thumb, with what it does and where it comes from. */
import { computed, ref } from "vue";
import { ORIGINS } from "@/kitchen/origins";
import { setHabit, usePractice } from "@/kitchen/practice";
import HabitField from "@/lenses/parts/HabitField.vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import KitchenPage from "@/ui/KitchenPage.vue";
import { useOpened } from "@/ui/opened";
import WholeNotes from "@/ui/WholeNotes.vue";
import HandlingTable from "./HandlingTable.vue";
import UsualHistory from "./UsualHistory.vue";

const TECHNIQUES = "Techniques";
const usual = usePractice();
const chosen = ref("");
const { open } = useOpened();
/** The chapters of the usual, in the order their rows come, and the techniques. */
const rooms = computed(() =>
  [...new Set([...usual.habits.map((habit) => habit.room), TECHNIQUES])].map((value) => ({
    value,
    words: value,
  })),
);
const room = computed(() => chosen.value || rooms.value[0]?.value);
const rows = computed(() => usual.habits.filter((habit) => habit.room === room.value));
</script>

<template>
  <KitchenPage title="Our usual" :whole="usual">
    <template #acts>
      <RouterLink class="act bare" :to="{ name: 'places' }">Hands and places</RouterLink>
      <button class="act bare" @click="open('earlier')">Earlier ones</button>
    </template>
    <main class="room">
      <p class="explain">
        How this kitchen works where an order does not say. A new order begins with a copy; an order that has
        begun keeps its own until it is brought up to this, in its Brief.
      </p>
      <div class="rooms">
        <ChoiceRow
          label="What to look at"
          :value="room ?? ''"
          :choices="rooms"
          @change="(value) => (chosen = value)"
        />
      </div>
      <WholeNotes :whole="usual" />
      <HandlingTable v-if="usual.practice && room === TECHNIQUES" />
      <ul v-else-if="usual.practice">
        <li v-for="habit in rows" :key="habit.name">
          <HabitField
            :habit="habit"
            :value="usual.practice[habit.name]"
            :usual="usual.first?.[habit.name]"
            @change="(value) => usual.change((kept) => setHabit(kept, habit.name, value, usual.first))"
          />
          <p>
            {{ habit.effect }} <span class="origin">{{ ORIGINS[habit.origin] }}</span>
          </p>
        </li>
      </ul>
      <p v-else>Opening our usual …</p>
    </main>
    <UsualHistory />
  </KitchenPage>
</template>

<style scoped>
.room {
  position: relative;
  overflow: hidden auto;
  padding: 18px 22px 30px;
}

.explain,
.rooms {
  max-width: 800px;
  margin-bottom: 14px;
}

.explain {
  color: var(--soft);
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(380px, 1fr));
  gap: 0 44px;
}

li {
  padding: 10px 0;
  border-bottom: 1px solid var(--rule);
}

li p {
  color: var(--soft);
  font-size: 15px;
}

.origin {
  display: block;
  font-style: italic;
}
</style>
