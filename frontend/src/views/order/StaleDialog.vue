<script setup lang="ts">
/** Someone else saved first, and both changed the same: both are kept, side by side, and one is to go on with. */
import { computed, ref } from "vue";
import { useDiffering } from "@/order/differing";
import { useOrder } from "@/order/order";

const order = useOrder();
const trouble = ref("");
const { compared } = useDiffering();
const MOST = 8;
const rows = computed(() => {
  const mine = order.document;
  if (!mine) return [];
  const names = (order.plan?.tiers ?? []).map((tier) => tier.name);
  return (order.stale?.differing ?? []).map((one) => compared(one, mine, names));
});

async function settle(keepMine: boolean): Promise<void> {
  trouble.value = "";
  try {
    await order.settle(keepMine);
  } catch {
    trouble.value =
      "The kitchen's server cannot be reached just now. Both are still there; choose again in a moment.";
  }
}
</script>

<template>
  <ElDialog
    :model-value="order.stale !== null"
    title="This order was saved elsewhere meanwhile"
    width="560"
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <template v-if="order.stale">
      <p>
        What was saved elsewhere is version {{ order.stale.current }}. Yours is kept beside it as version
        {{ order.stale.aside }}, so nothing is lost whichever you go on with.
      </p>
      <table v-if="rows.length">
        <caption>
          Both of you changed this. What only one of you changed stays, whichever you go on with.
        </caption>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Yours</th>
            <th scope="col">Theirs</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, at) in rows.slice(0, MOST)" :key="at">
            <th scope="row">{{ row.where }}</th>
            <td>{{ row.mine }}</td>
            <td>{{ row.theirs }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="rows.length > MOST">And {{ rows.length - MOST }} more.</p>
      <p v-if="trouble" role="alert">{{ trouble }}</p>
      <div class="acts">
        <button class="act main" @click="settle(true)">Go on with mine</button>
        <button class="act" @click="settle(false)">Go on with theirs</button>
      </div>
    </template>
  </ElDialog>
</template>

<style scoped>
table {
  width: 100%;
  margin: 14px 0;
  border-collapse: collapse;
}

caption {
  padding-bottom: 8px;
  color: var(--soft);
  text-align: left;
}

th,
td {
  padding: 8px 10px 8px 0;
  border-bottom: 1px solid var(--rule);
  font-weight: 400;
  text-align: left;
  vertical-align: top;
}

td {
  font-family: var(--serif);
  font-weight: 600;
}

thead th {
  color: var(--soft);
}

.acts {
  display: flex;
  gap: 12px;
  margin-top: 18px;
}
</style>
