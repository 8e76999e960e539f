/** The shopping of the order in hand, as it stands, or of every order due in some days. */
import { defineStore } from "pinia";
import { computed, ref, toRaw } from "vue";
import { answered, api } from "@/api/client";
import type { Shopping } from "@/api/types";
import { keep, recall } from "@/base/browser";
import { dayCode } from "@/base/time";
import { useKit } from "@/kitchen/kit";
import { useAsked } from "./asked";
import { useOrder } from "./order";

export type Scope = "order" | "week";
const TICKS = "amber:ticked";

/** The Monday of the week a day falls in, as the server reads days. */
export function mondayOf(day: Date): string {
  return dayCode(new Date(day.getFullYear(), day.getMonth(), day.getDate() - ((day.getDay() + 6) % 7)));
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
  const scope = ref<Scope>("order");
  const first = ref("");
  const days = ref(7);
  const pooled = ref(false);
  const ticked = ref<string[]>([]);

  const from = computed(
    () => first.value || mondayOf(order.document?.due ? new Date(order.document.due) : new Date()),
  );
  const place = computed(() => (scope.value === "order" ? order.id : `${from.value}/${days.value}`));
  const query = computed(() => ({ first: from.value, days: days.value, pooled: pooled.value }));

  async function ask(signal: AbortSignal): Promise<Shopping | null> {
    if (!order.document) return null;
    if (scope.value === "week") {
      await order.flush();
      const params = { query: query.value };
      return (await answered(api.GET("/api/shop/week", { params, signal }))) as Shopping;
    }
    const body = { document: toRaw(order.document), kit: toRaw(kit.kit) };
    return (await answered(api.POST("/api/shop", { body, signal }))) as Shopping;
  }

  const asked = useAsked<Shopping>({
    ask,
    place: () => place.value,
    old: "This list is from before.",
    came: () => (ticked.value = tickedBefore(place.value)),
  });

  /** Tick an item off, or back on; kept in this browser for this list. */
  function tick(item: string): void {
    const had = ticked.value.includes(item);
    ticked.value = had ? ticked.value.filter((one) => one !== item) : [...ticked.value, item];
    keep(`${TICKS}:${place.value}`, JSON.stringify(ticked.value));
  }

  const { found: shopping, trouble, busy, awaited, refresh } = asked;
  return { shopping, trouble, busy, awaited, scope, first, from, days, pooled, query, ticked, refresh, tick };
});
