<script setup lang="ts">
/** A page of something the kitchen keeps as a whole: how the last change fares, and undo. */
import { computed, onBeforeUnmount, onMounted } from "vue";
import PageFrame from "./PageFrame.vue";
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
  <PageFrame :title="title">
    <template #acts>
      <span class="state" role="status">{{ kept }}</span>
      <button class="act bare" :disabled="!whole.canUndo" @click="whole.undo()">Undo</button>
      <button class="act bare" :disabled="!whole.canRedo" @click="whole.redo()">Redo</button>
      <slot name="acts" />
      <UnitsMenu />
    </template>
    <slot />
  </PageFrame>
</template>

<style scoped>
.state {
  color: var(--soft);
}
</style>
