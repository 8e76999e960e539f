<script setup lang="ts">
/** A drawing to read an outline from, at its true size. What cannot be used is said, and nothing is changed. */
import { tenth } from "@/base/round";
import { ref } from "vue";
import { answered, api, asIs, wordsOf } from "@/api/client";
import FileButton from "./FileButton.vue";

const emit = defineEmits<{ read: [points: [number, number][], width: number] }>();
const reading = ref("");
const said = ref<string[]>([]);

async function upload(file: File): Promise<void> {
  said.value = [];
  reading.value = `Reading ${file.name} …`;
  try {
    const found = await answered(
      api.POST(
        "/api/outline",
        asIs(await file.text(), file.name.toLowerCase().endsWith(".dxf") ? "image/vnd.dxf" : "image/svg+xml"),
      ),
    );
    emit("read", found.points_mm as [number, number][], tenth(found.width_mm));
    said.value = found.notes;
  } catch (error) {
    said.value = [wordsOf(error, "The drawing could not be sent just now. Try again.")];
  } finally {
    reading.value = "";
  }
}
</script>

<template>
  <div>
    <FileButton
      class="file"
      words="Read a drawing (SVG, DXF)"
      accept=".svg,.dxf,image/svg+xml,image/vnd.dxf"
      @file="upload"
    />
    <p v-if="reading" aria-live="polite">{{ reading }}</p>
    <p v-for="words in said" :key="words" role="alert" class="said">{{ words }}</p>
  </div>
</template>

<style scoped>
.file {
  margin-top: 10px;
}

.said {
  padding-top: 6px;
  color: var(--trouble);
}
</style>
