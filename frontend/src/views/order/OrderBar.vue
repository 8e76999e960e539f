<script setup lang="ts">
/** The bar over an order: what it is, when it is due, undo, what can be done with it, and whether it is saved. */
import { computed } from "vue";
import { useRouter } from "vue-router";
import { answered, api } from "@/api/client";
import { dueWords } from "@/base/time";
import { useOrder } from "@/order/order";
import { usePapers } from "@/order/papers";
import { useOpened } from "@/ui/opened";
import TextField from "@/ui/TextField.vue";
import UnitsMenu from "@/ui/UnitsMenu.vue";
import SavedState from "./SavedState.vue";

const props = defineProps<{ lens: string }>();
const emit = defineEmits<{ trouble: [words: string] }>();
const router = useRouter();
const order = useOrder();
const { take, takePrinted } = usePapers();
const { open } = useOpened();

/** The private parts of the order, left out of a shared file. */
const own = computed(() => {
  const { customer, notes, design } = order.document ?? {};
  const traced = design?.tiers.some(
    ({ build }) => build?.kind === "carved" && (build.picture || build.front_picture || build.above_picture),
  );
  return [customer && "customer", notes && "notes", traced && "pictures"].filter((one) => one);
});

async function duplicate(): Promise<void> {
  await order.flush();
  try {
    const params = { path: { id: order.id } };
    const copy = await answered(api.POST("/api/orders/{id}/duplicate", { params }));
    await router.push({ name: "order", params: { id: copy.id, lens: props.lens } });
  } catch {
    emit("trouble", "The copy could not be made just now. Nothing was changed.");
  }
}

async function archive(): Promise<void> {
  await order.flush();
  try {
    const params = { path: { id: order.id } };
    await answered(api.POST("/api/orders/{id}/archive", { params }));
    await router.push("/");
  } catch {
    emit("trouble", "The order could not be archived just now. Nothing was changed.");
  }
}
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
    <ElDropdown trigger="click" placement="bottom-end">
      <button class="act bare">Order</button>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem @click="duplicate">Duplicate it</ElDropdownItem>
          <ElDropdownItem @click="takePrinted('plate.pdf')">Plate to print (PDF)</ElDropdownItem>
          <ElDropdownItem @click="takePrinted('plate.svg')">Plate as a drawing (SVG)</ElDropdownItem>
          <ElDropdownItem @click="takePrinted('bench.pdf')">Bench sheet (PDF)</ElDropdownItem>
          <ElDropdownItem @click="take('file')"
            >Save as a file{{ own.length ? `, without ${own.join(", ")}` : "" }}</ElDropdownItem
          >
          <ElDropdownItem v-if="own.length" @click="take('file?private=true')"
            >Save as a file with {{ own.join(", ") }}</ElDropdownItem
          >
          <ElDropdownItem @click="open('versions')">Versions</ElDropdownItem>
          <ElDropdownItem @click="archive">Archive it</ElDropdownItem>
          <ElDropdownItem @click="open('line')">The cake in one line</ElDropdownItem>
          <ElDropdownItem @click="open('kit')">What you own</ElDropdownItem>
          <ElDropdownItem @click="router.push({ name: 'pantry' })">Recipes and prices</ElDropdownItem>
          <ElDropdownItem @click="router.push({ name: 'usual' })">Our usual</ElDropdownItem>
          <ElDropdownItem divided @click="open('keys')">Keys</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
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
