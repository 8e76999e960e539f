/** The shopping of the order in hand, as it stands, or of every order due in some days. */
import { defineStore } from "pinia";
import { computed, ref, shallowRef, toRaw } from "vue";
import { answered, api, fieldWordsOf, isBusy } from "@/api/client";
import type { Shopping } from "@/api/types";
import { Newest } from "@/base/newest";
import { keep, recall } from "@/base/browser";
import { useKit } from "@/kitchen/kit";
import { useOrder } from "./order";

const ASK_AGAIN_MS = 1500;

export type Scope = "order" | "week";
const TICKS = "amber:ticked";

/** The Monday of the week a day falls in, as the server reads days. */
export function mondayOf(day: Date): string {
  const monday = new Date(day.getFullYear(), day.getMonth(), day.getDate() - ((day.getDay() + 6) % 7));
  const two = (number: number): string => String(number).padStart(2, "0");
  return `${monday.getFullYear()}-${two(monday.getMonth() + 1)}-${two(monday.getDate())}`;
}

/** What of a list was ticked off in this browser. */
function tickedBefore(place: string): string[] {
  try {
    const found: unknown = JSON.parse(recall(`${TICKS}:${place}`) ?? "[]");
    return Array.isArray(found) ? found.filter((one): one is string => typeof one === "string") : [];
  } catch {
    return [];
  }
}

export const useShopping = defineStore("shopping", () => {
  const order = useOrder();
  const kit = useKit();
  const shopping = shallowRef<Shopping | null>(null);
  const trouble = ref("");
  const busy = ref(false);
  /** The progress of a list that is not ready yet. */
  const awaited = ref("");
  /** The place of the list on screen. */
  let shownFor = "";
  const scope = ref<Scope>("order");
  const first = ref("");
  const days = ref(7);
  const pooled = ref(false);
  const ticked = ref<string[]>([]);
  const newest = new Newest();

  const from = computed(
    () => first.value || mondayOf(order.document?.due ? new Date(order.document.due) : new Date()),
  );
  const place = computed(() => (scope.value === "order" ? order.id : `${from.value}/${days.value}`));
  const query = computed(() => ({ first: from.value, days: days.value, pooled: pooled.value }));

  async function ask(signal: AbortSignal): Promise<Shopping> {
    if (scope.value === "week") {
      await order.flush();
      const params = { query: query.value };
      return (await answered(api.GET("/api/shop/week", { params, signal }))) as Shopping;
    }
    if (!order.document) throw new Error("no order is open");
    const body = { document: toRaw(order.document), kit: toRaw(kit.kit) };
    return (await answered(api.POST("/api/shop", { body, signal }))) as Shopping;
  }

  /** Ask again. Only the newest answer counts; what was there stays on screen until it comes. */
  async function refresh(): Promise<void> {
    if (!order.document) return;
    const signal = newest.begin();
    if (shownFor !== place.value) shopping.value = null;
    busy.value = true;
    try {
      const found = await ask(signal);
      if (signal.aborted) return;
      shopping.value = found;
      shownFor = place.value;
      trouble.value = "";
      awaited.value = "";
      ticked.value = tickedBefore(place.value);
    } catch (error) {
      if (signal.aborted) return;
      awaited.value = isBusy(error) ? error.problem.detail : "";
      if (awaited.value) {
        trouble.value = "";
        newest.later(refresh, ASK_AGAIN_MS);
        return;
      }
      trouble.value = fieldWordsOf(
        error,
        "The kitchen's server cannot be reached just now. This list is from before.",
      );
    } finally {
      if (newest.is(signal)) busy.value = false;
    }
  }

  /** Tick an item off, or back on; kept in this browser for this list. */
  function tick(item: string): void {
    const had = ticked.value.includes(item);
    ticked.value = had ? ticked.value.filter((one) => one !== item) : [...ticked.value, item];
    keep(`${TICKS}:${place.value}`, JSON.stringify(ticked.value));
  }

  return { shopping, trouble, busy, awaited, scope, first, from, days, pooled, query, ticked, refresh, tick };
});
