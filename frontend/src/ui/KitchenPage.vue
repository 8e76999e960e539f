<script setup lang="ts">
/** A page of something the kitchen keeps as a whole: its name, how the last change fares, undo, and the way back. */
import { computed, onBeforeUnmount, onMounted } from "vue";
import { useRouter } from "vue-router";
import UnitsMenu from "./UnitsMenu.vue";

export interface KeptWhole {
  underway: number;
  trouble: string;
  unread: string;
  joined: boolean;
  canUndo: boolean;
  canRedo: boolean;
  open: () => Promise<void>;
  undo: () => Promise<boolean>;
  redo: () => Promise<boolean>;
}

const props = defineProps<{ title: string; whole: KeptWhole }>();
const router = useRouter();
const from = computed(() => (history.state as { back?: string }).back);

/** How the last change fares; where one was refused, its own place says so. */
const kept = computed(() =>
  props.whole.underway > 0
    ? "Saving …"
    : props.whole.trouble || !props.whole.canUndo
      ? ""
      : props.whole.joined
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
  void (key === "y" || event.shiftKey ? props.whole.redo() : props.whole.undo());
}

function warnIfUnsaved(event: BeforeUnloadEvent): void {
  if (props.whole.underway > 0) event.preventDefault();
}

onMounted(() => {
  document.title = `${props.title} · Amber Spread`;
  window.addEventListener("beforeunload", warnIfUnsaved);
  window.addEventListener("keydown", onKey);
  void props.whole.open();
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
      <h1>{{ title }}</h1>
      <span class="grow" />
      <span class="state" role="status">{{ kept }}</span>
      <button class="act bare" :disabled="!whole.canUndo" @click="whole.undo()">Undo</button>
      <button class="act bare" :disabled="!whole.canRedo" @click="whole.redo()">Redo</button>
      <slot name="acts" />
      <UnitsMenu />
      <button class="act" @click="back">
        {{ from && from !== "/" ? "Back to the order" : "Back to the shelf" }}
      </button>
    </header>
    <slot />
  </div>
</template>

<style scoped>
.home {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}

.grow {
  flex: 1;
}

.state {
  color: var(--soft);
}
</style>
