<script setup lang="ts">
/** What every way of working loses, holds in hand and varies by: three shares of what stays on the cake. */
import { computed } from "vue";
import { useHandbook } from "@/kitchen/handbook";
import { type ShareName, type TechniqueName, usePractice } from "@/kitchen/practice";
import MeasureField from "@/ui/MeasureField.vue";

const usual = usePractice();
const handbook = useHandbook();
const rows = computed(() => handbook.book?.handlings ?? []);
const shares = computed(() => Object.entries(handbook.book?.shares ?? {}) as [ShareName, string][]);

function set(name: TechniqueName, share: ShareName, value: number | null): void {
  const first = usual.first?.techniques[name][share];
  void usual.change((kept) => {
    kept.techniques[name][share] = value ?? first ?? kept.techniques[name][share];
  });
}
</script>

<template>
  <table v-if="usual.practice">
    <thead>
      <tr>
        <th scope="col">Technique</th>
        <th v-for="[share, words] in shares" :key="share" scope="col">{{ words }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.name">
        <th scope="row">
          {{ row.words }}
          <span class="effect">{{ row.effect }}</span>
        </th>
        <td v-for="[share, words] in shares" :key="share">
          <MeasureField
            quiet
            percent
            limit="fraction"
            :label="`${row.words}: ${words}`"
            :value="usual.practice.techniques[row.name as TechniqueName][share]"
            :usual="usual.first?.techniques[row.name as TechniqueName][share]"
            @change="(value) => set(row.name as TechniqueName, share, value)"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  max-width: 1000px;
  border-collapse: collapse;
}

th {
  padding: 6px 12px 6px 0;
  font-weight: 600;
  text-align: left;
  vertical-align: top;
}

thead th {
  color: var(--soft);
  font-size: 15px;
  font-weight: 400;
}

tr {
  border-bottom: 1px solid var(--rule);
}

thead th:not(:first-child) {
  padding: 6px 0 6px 28px;
  text-align: right;
}

.effect {
  display: block;
  color: var(--soft);
  font-size: 15px;
  font-weight: 400;
}
</style>
