<script setup lang="ts">
/** The bar over an order: what it is, when it is due, undo, what can be done with it, and whether it is saved. */
import { ref } from "vue";
import { dueWords } from "@/base/time";
import { useOrder } from "@/order/order";
import { useOpened } from "@/ui/opened";
import TextField from "@/ui/TextField.vue";
import UnitsMenu from "@/ui/UnitsMenu.vue";
import { OrderMenu } from "./late";
import SavedState from "./SavedState.vue";

defineProps<{ lens: string }>();
const emit = defineEmits<{ trouble: [words: string] }>();
const order = useOrder();
const { open } = useOpened();

const button = ref<HTMLElement>();
/** The menu is loaded when it is first opened. */
const menu = ref(false);
</script>

<template>
  <header v-if="order.document" class="bar">
    <RouterLink to="/" class="brand" aria-label="Amber Spread: back to the shelf"
      >Amber <b>Spread</b></RouterLink
    >
    <h1 class="title">
      <TextField
        label="Title"
        :value="order.document.title"
        :most="80"
        pointer="#/title"
        @change="(text) => order.edit((draft) => (draft.title = text))"
      />
    </h1>
    <span class="due"
      >{{ dueWords(order.document.due)
      }}<template v-if="order.document.servings">, for {{ order.document.servings }}</template></span
    >
    <span class="grow" />
    <button class="act bare" :disabled="!order.canUndo" @click="order.undo()">Undo</button>
    <button class="act bare" :disabled="!order.canRedo" @click="order.redo()">Redo</button>
    <button ref="button" class="act bare" aria-haspopup="menu" @click="menu = true">Order</button>
    <OrderMenu
      v-if="menu && button"
      :from="button"
      :lens="lens"
      @trouble="(words) => emit('trouble', words)"
    />
    <UnitsMenu />
    <button
      class="act bare help"
      aria-label="Words of the trade"
      title="Words of the trade (?)"
      @click="open('words')"
    >
      ?
    </button>
    <SavedState />
  </header>
</template>

<style scoped>
.bar {
  grid-area: bar;
  gap: 8px;
  padding: 0 14px 0 22px;
}

.title {
  flex: 100 1 130px;
  max-width: 250px;
  margin-left: 14px;
}

.title :deep(input) {
  text-overflow: ellipsis;
  border-bottom-color: transparent;
  font-size: 19px;
}

.title :deep(input:hover),
.title :deep(input:focus) {
  border-bottom-color: var(--amber-line);
}

.help {
  width: 44px;
  padding: 0;
  font: 600 20px var(--serif);
}

.due {
  overflow: hidden;
  min-width: 0;
  color: var(--soft);
  text-overflow: ellipsis;
  white-space: nowrap;
}

.grow {
  flex: 1;
}

@media print {
  .bar .act,
  .bar :deep(.units),
  .bar :deep(.state) {
    display: none;
  }
}

@media (width < 1180px) {
  .due {
    display: none;
  }
}

@media (width < 900px) {
  .bar {
    gap: 2px;
    padding: 0 10px;
  }

  .grow {
    display: none;
  }

  .title {
    margin-left: 4px;
  }

  .brand b {
    display: none;
  }
}
</style>
