<script setup lang="ts">
/** What can be done with an order as a whole: the menu below the button in the bar. Opens as soon as it is loaded. */
import type { DropdownInstance } from "element-plus";
import { computed, onMounted, ref } from "vue";
import { useRouter } from "vue-router";
import { answered, api } from "@/api/client";
import { useOrder } from "@/order/order";
import { usePapers } from "@/order/papers";
import { useOpened } from "@/ui/opened";

const props = defineProps<{
  /** The button it belongs to. */
  from: HTMLElement;
  lens: string;
}>();
const emit = defineEmits<{ trouble: [words: string] }>();
const router = useRouter();
const order = useOrder();
const { take, takePrinted } = usePapers();
const { open } = useOpened();
const dropdown = ref<DropdownInstance>();

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

onMounted(() => {
  dropdown.value?.handleOpen();
});
</script>

<template>
  <ElDropdown ref="dropdown" trigger="click" placement="bottom-end" virtual-triggering :virtual-ref="from">
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
        <ElDropdownItem @click="router.push({ name: 'week' })">The week</ElDropdownItem>
        <ElDropdownItem @click="router.push({ name: 'usual' })">Our usual</ElDropdownItem>
        <ElDropdownItem @click="router.push({ name: 'places' })">Hands and places</ElDropdownItem>
        <ElDropdownItem divided @click="open('keys')">Keys</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>
