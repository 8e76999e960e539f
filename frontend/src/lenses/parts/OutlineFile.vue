<script setup lang="ts">
/** A drawing to read an outline from, at its true size. What cannot be used is said, and nothing is changed. */
import { tenth } from "@/base/round";
import { ref } from "vue";
import { answered, api, Refused } from "@/api/client";

const emit = defineEmits<{ read: [points: [number, number][], width: number] }>();
const reading = ref("");
const said = ref<string[]>([]);

async function upload(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = "";
  if (!file) return;
  said.value = [];
  reading.value = `Reading ${file.name} …`;
  try {
    const found = await answered(
      api.POST("/api/outline", {
        body: await file.text(),
        bodySerializer: (body) => body as string,
        headers: { "content-type": "image/svg+xml" },
      }),
    );
    emit("read", found.points_mm as [number, number][], tenth(found.width_mm));
    said.value = found.notes;
  } catch (error) {
    said.value = [
      error instanceof Refused ? error.problem.detail : "The drawing could not be sent just now. Try again.",
    ];
  } finally {
    reading.value = "";
  }
}
</script>

<template>
  <div>
    <label class="act file">
      Read an SVG drawing
      <input type="file" accept=".svg,image/svg+xml" @change="upload" />
    </label>
    <p v-if="reading" aria-live="polite">{{ reading }}</p>
    <p v-for="words in said" :key="words" role="alert" class="said">{{ words }}</p>
  </div>
</template>

<style scoped>
.file {
  display: inline-grid;
  place-content: center;
  margin-top: 10px;
}

.file:has(:focus-visible) {
  outline: 3px solid var(--amber-line);
}

.file input {
  position: absolute;
  width: 1px;
  opacity: 0;
}

.said {
  padding-top: 6px;
  color: var(--trouble);
}
</style>
