<script setup lang="ts">
/** An order that this version of the program cannot read: why, its file, and the way back to a version it can. */
import { onMounted, ref } from "vue";
import { useRouter } from "vue-router";
import { answered, api, wordsOf } from "@/api/client";
import type { Revision } from "@/api/types";
import VersionList from "@/ui/VersionList.vue";

const props = defineProps<{ id: string; reason: string }>();
const emit = defineEmits<{ readable: [] }>();
const router = useRouter();
const versions = ref<Revision[]>([]);
const trouble = ref("");

/** Try something the server does; what goes wrong is said here, and nothing is changed. */
async function attempt(what: () => Promise<unknown>): Promise<boolean> {
  trouble.value = "";
  try {
    await what();
    return true;
  } catch (error) {
    trouble.value = wordsOf(error, "The kitchen's server cannot be reached just now. Nothing was changed.");
    return false;
  }
}

const look = (): Promise<boolean> =>
  attempt(async () => {
    const params = { path: { id: props.id } };
    versions.value = await answered(api.GET("/api/orders/{id}/revisions", { params }));
  });

async function goBack(number: number): Promise<void> {
  const params = { path: { id: props.id, number } };
  if (await attempt(() => answered(api.POST("/api/orders/{id}/revisions/{number}/again", { params }))))
    emit("readable");
}

async function archive(): Promise<void> {
  const params = { path: { id: props.id } };
  if (await attempt(() => answered(api.POST("/api/orders/{id}/archive", { params })))) await router.push("/");
}

onMounted(look);
</script>

<template>
  <main class="unread">
    <h1>This version cannot read this order</h1>
    <p>{{ reason }}</p>
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <div class="acts">
      <a class="act main" :href="`/api/orders/${id}/file`">Save it as a file</a>
      <button class="act" @click="archive">Archive it</button>
      <RouterLink class="act" to="/">Back to the shelf</RouterLink>
    </div>
    <template v-if="versions.length > 1">
      <h2>Go back to an earlier version</h2>
      <VersionList :versions="versions.slice(1)" @go-back="goBack" />
    </template>
  </main>
</template>

<style scoped>
.unread {
  display: grid;
  gap: 16px;
  align-content: start;
  max-width: 760px;
  margin: 10vh auto;
  padding: 0 24px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}

.acts a {
  display: grid;
  place-content: center;
  text-decoration: none;
}
</style>
