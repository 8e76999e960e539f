<script setup lang="ts">
/** What would help an order that cannot be ready in time: each change tried first, and made with one press. */
import { computed, ref, shallowRef, toRaw, watch } from "vue";
import { answered, api, fieldWordsOf } from "@/api/client";
import type { Check, Give, Gives } from "@/api/types";
import { Newest } from "@/base/newest";
import { patch } from "@/base/patch";
import { momentCode } from "@/base/time";
import { useKit } from "@/kitchen/kit";
import { usePlaces } from "@/kitchen/places";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "@/order/order";

const props = defineProps<{ checks: readonly Check[] }>();
const order = useOrder();
const kit = useKit();
const places = usePlaces();
const settings = useSettings();
const found = shallowRef<Gives>();
const busy = ref(false);
const trouble = ref("");
const search = new Newest();
const wanted = computed(() => props.checks.some(({ code }) => /^clock\.(late|over|no_room)/.test(code)));

async function look(): Promise<void> {
  const signal = search.begin();
  busy.value = true;
  trouble.value = "";
  const body = {
    document: toRaw(order.document),
    kit: toRaw(kit.kit),
    now: momentCode(new Date()),
    order: order.id || null,
  };
  try {
    const answer = await answered(api.POST("/api/clock/gives", { body: body as never, signal }));
    if (!signal.aborted) found.value = answer as Gives;
  } catch (error) {
    if (!signal.aborted)
      trouble.value = fieldWordsOf(error, "The kitchen's server cannot be reached just now. Try again.");
  } finally {
    if (search.is(signal)) busy.value = false;
  }
}

function letGo(): void {
  search.begin();
  busy.value = false;
  found.value = undefined;
  trouble.value = "";
}

function make(give: Give): void {
  if (give.on === "order") order.edit((draft) => patch(draft, give.changes));
  else void places.change((kept) => patch(kept, give.changes));
  letGo();
}

const DEEDS: Record<Give["on"], string> = { order: "Change the order", places: "Add it to the kitchen" };
/** What was found is of the order and the kitchen as they were. */
watch([() => order.document, () => places.shown], letGo);
</script>

<template>
  <section v-if="wanted || found" class="gives" aria-label="What gives">
    <button v-if="!found && !busy" class="act wide" @click="look">What would make it fit?</button>
    <p v-else-if="busy" role="status">
      Trying other hours, helpers and designs …
      <button class="act bare" @click="letGo">Stop</button>
    </p>
    <div v-else-if="found" role="status">
      <p>From now on, as it is: {{ settings.filled(found.as_it_is.text, found.as_it_is.values ?? {}) }}</p>
      <ul v-if="found.gives.length">
        <li v-for="give in found.gives" :key="give.what" :class="{ enough: give.enough }">
          <strong>{{ settings.filled(give.said.text, give.said.values ?? {}) }}</strong>
          <span>{{ settings.filled(give.result.text, give.result.values ?? {}) }}</span>
          <button class="act" @click="make(give)">{{ DEEDS[give.on] }}</button>
        </li>
      </ul>
      <p v-else-if="!found.enough">
        Nothing that was tried helps by itself: not a later hour, another pair of hands, another shelf, the
        freezer, or a plainer cake. Change two things together, or tell the customer.
      </p>
      <button class="act bare" @click="letGo">Close</button>
    </div>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.wide {
  width: 100%;
  margin: 6px 0;
}

ul {
  margin: 6px 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  gap: 4px;
  justify-items: start;
  padding: 8px 0 10px 12px;
  border-bottom: 1px solid var(--rule);
  border-left: 4px solid var(--rule);
}

li.enough {
  border-left-color: var(--teal);
}

.trouble {
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
}
</style>
