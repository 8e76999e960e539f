<script setup lang="ts">
/** A file to take over, whole or not at all, with what is wrong said line by line; and the same as a file to keep. */
import { ref } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import { type PantryFile, usePantry } from "@/kitchen/pantry";

const props = defineProps<{ what: PantryFile; words: string }>();
const pantry = usePantry();
const handbook = useHandbook();
const input = ref<HTMLInputElement>();
const done = ref("");
const wrong = ref("");
const busy = ref(false);

async function take(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  field.value = "";
  if (!file) return;
  [done.value, wrong.value] = ["", ""];
  const most = handbook.book?.max_file_bytes ?? 0;
  if (file.size > most) {
    wrong.value = `${file.name} is larger than ${most / 1024} kB, the most that is read. Split it and take the parts over one by one.`;
    return;
  }
  busy.value = true;
  const before = JSON.stringify(pantry.pantry);
  const taken = await pantry.read(props.what, file);
  busy.value = false;
  if (taken) {
    done.value =
      before === JSON.stringify(pantry.pantry)
        ? `${file.name} says nothing new.`
        : `${file.name} was taken over, every line of it.`;
  } else if (pantry.complaints.length)
    wrong.value = `Nothing of ${file.name} was taken over. Mend these lines and try again:`;
}
</script>

<template>
  <div class="files">
    <button class="act" :disabled="busy" @click="input?.click()">
      {{ busy ? "Reading …" : `Take over ${words}` }}
    </button>
    <input
      ref="input"
      class="unseen"
      type="file"
      accept=".csv,.txt,.json,text/csv,application/json"
      :aria-label="`Take over ${words}`"
      tabindex="-1"
      @change="take"
    />
    <a class="act" :href="`/api/pantry/${what}.csv`">Save as CSV</a>
    <a v-if="what === 'recipes'" class="act" href="/api/pantry/recipes.json">Save as JSON</a>
    <p v-if="done" class="done" role="status">{{ done }}</p>
    <div v-if="wrong" class="wrong" role="alert">
      <p>{{ wrong }}</p>
      <ul v-if="pantry.complaints.length">
        <li v-for="one in pantry.complaints" :key="one.pointer + one.message">
          <b>{{ one.field.charAt(0).toUpperCase() + one.field.slice(1) }}</b>: {{ one.message }}.
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

a.act {
  display: grid;
  place-content: center;
  text-decoration: none;
}

.done,
.wrong {
  flex-basis: 100%;
  padding: 8px 12px;
  border-left: 4px solid var(--teal);
  background: var(--panel);
}

.wrong {
  border-color: var(--trouble);
}

ul {
  max-height: 190px;
  margin: 6px 0 0;
  padding-left: 20px;
  list-style: disc;
  position: relative;
  overflow: auto;
}
</style>
