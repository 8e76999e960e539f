<script setup lang="ts">
/** How many are to eat of it, whom it is for, and what the kitchen wrote down; the last two stay in the kitchen. */
import { computed } from "vue";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import { useOrder } from "@/order/order";
import { useDesk } from "@/ui/desk";
import FoldedPart from "@/ui/FoldedPart.vue";
import MeasureField from "@/ui/MeasureField.vue";
import TextField from "@/ui/TextField.vue";

const MOST_NOTES = 2000;
const order = useOrder();
const desk = useDesk();
const portions = computed(() => order.plan?.stack.portions);
const says = computed(() => {
  const { servings = null, customer = "", notes = "" } = order.document ?? {};
  const said = [customer, servings ? `${servings} servings` : "", notes ? "notes" : ""];
  return said.filter(Boolean).join(", ") || "not set";
});
</script>

<template>
  <FoldedPart v-if="order.document" name="For whom" :says="says" :open="says !== 'not set'">
    <div class="rows">
      <MeasureField
        label="Servings wanted"
        limit="servings"
        optional="not set"
        :value="order.document.servings"
        pointer="#/servings"
        @change="(value) => order.edit((draft) => (draft.servings = value))"
      />
    </div>
    <FigureRow label="It cuts into" :figure="portions" after="portions" />
    <div class="customer">
      <span>Customer</span>
      <TextField
        label="Customer"
        :value="order.document.customer"
        placeholder="not set"
        :most="80"
        empty
        pointer="#/customer"
        @change="(text) => order.edit((draft) => (draft.customer = text))"
      />
    </div>
    <label class="notes">
      Notes
      <textarea
        rows="3"
        :maxlength="MOST_NOTES"
        :value="order.document.notes"
        @change="order.edit((draft) => (draft.notes = ($event.target as HTMLTextAreaElement).value))"
      />
    </label>
    <p v-if="desk.complaintAt('#/notes')" class="wrong" role="alert">{{ desk.complaintAt("#/notes") }}</p>
    <p class="soft">
      Customer and notes stay in your kitchen: they are in no file you hand on unless you ask.
    </p>
  </FoldedPart>
</template>

<style scoped>
.customer {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 12px;
  align-items: center;
  min-height: 48px;
}

.customer :deep(input::placeholder) {
  color: var(--soft);
  font: 400 16px var(--sans);
}

.notes {
  display: grid;
  gap: 4px;
  padding-top: 6px;
}

textarea {
  width: 100%;
  padding: 8px;
  border: 1px solid var(--edge);
  background: var(--paper);
  font: inherit;
  resize: vertical;
}

.soft {
  color: var(--soft);
}
</style>
