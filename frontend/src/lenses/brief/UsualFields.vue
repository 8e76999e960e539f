<script setup lang="ts">
/** How this order is worked where its design does not say; what of it is other than the kitchen's usual. */
import { computed, onMounted, ref } from "vue";
import { copied } from "@/base/copy";
import { usePractice } from "@/kitchen/practice";
import { useOrder } from "@/order/order";
import FoldedPart from "@/ui/FoldedPart.vue";
import { later } from "@/ui/later";

const PracticeFields = later(() => import("@/lenses/parts/PracticeFields.vue"));
const order = useOrder();
const usual = usePractice();
const done = ref("");
const own = computed(() => order.document?.practice);
const other = computed(() => (own.value ? usual.differences(own.value) : []));

/** The kitchen works as this order does from now on. */
async function takeAsUsual(): Promise<void> {
  const mine = own.value;
  if (!mine) return;
  const taken = await usual.change((kept) => Object.assign(kept, copied(mine)));
  done.value = taken ? "The kitchen works so from now on; new orders begin with it." : usual.trouble;
}

/** This order is worked as the kitchen does now. */
function bringUp(): void {
  const kept = usual.practice;
  if (!kept) return;
  order.edit((draft) => void (draft.practice = copied(kept)));
  done.value = "This order is worked as the kitchen does now.";
}

onMounted(() => usual.open());
</script>

<template>
  <FoldedPart
    v-if="own"
    name="How this order is worked"
    :says="other.length ? 'in its own way' : 'as our usual'"
    :open="false"
  >
    <p class="explain">
      Used wherever this design does not say otherwise. The order took it from
      <RouterLink :to="{ name: 'usual' }">our usual</RouterLink> when it began; an emptied field goes back to
      that.
    </p>
    <template v-if="other.length">
      <p class="explain other">
        Other than our usual: <b>{{ other.join(", ") }}</b>.
      </p>
      <div class="acts">
        <button class="act" @click="bringUp">Bring this order up to our usual</button>
        <button class="act" :disabled="usual.underway > 0" @click="takeAsUsual">
          Take these as our usual
        </button>
      </div>
    </template>
    <p v-else class="explain">All of it is as our usual is now.</p>
    <p v-if="done" class="explain" role="status">{{ done }}</p>
    <div class="rows">
      <PracticeFields :habits="usual.habits" @change="done = ''" />
    </div>
  </FoldedPart>
</template>

<style scoped>
.explain {
  color: var(--soft);
}

.explain a {
  color: inherit;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-bottom: 8px;
}

.other {
  padding-left: 8px;
  border-left: 4px solid var(--amber-line);
}
</style>
