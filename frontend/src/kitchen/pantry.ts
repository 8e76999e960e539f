/** What the kitchen makes and buys: recipes, prices, larder and terms, kept by the server. */
import { defineStore } from "pinia";
import { computed } from "vue";
import { answered, api, Refused, OURS } from "@/api/client";
import { complaintWords } from "@/api/complaint";
import type { Larder, Medium, Pantry, Recipe } from "@/api/types";
import { useKept } from "./kept";
import { useSettings } from "./settings";

export type PantryFile = "prices" | "larder" | "recipes";

/** Where a density comes from, to follow "taken". */
export function sourceWords(source: Medium["density_source"]): string {
  if (source.origin === "this kitchen") return "as you weighed it";
  return source.reference ? `${source.origin}: ${source.reference}` : source.origin;
}

const OWN = "own_";

/** A key for a recipe, a medium or an ingredient of ours that nobody else's just now begun can have too. */
export function ownKey(): string {
  return `${OWN}${Date.now().toString(36)}${Math.random().toString(36).slice(2, 8)}`;
}

/** Whether a thing is this kitchen's from the start, not one of the program's that it changed. */
export const isOwnKey = (key: string): boolean => key.startsWith(OWN);

export const usePantry = defineStore("pantry", () => {
  const settings = useSettings();
  const {
    shown: larder,
    whole: pantry,
    have,
    ...kept
  } = useKept<Larder, Pantry>({
    what: "pantry",
    ask: async () => (await answered(api.GET("/api/pantry"))) as Larder,
    send: async (began_from, pantry) =>
      (await answered(api.PUT("/api/pantry", { body: { began_from, pantry } }))) as Larder,
    of: (found) => found.pantry,
    say: (complaint, sent) => complaintWords(complaint, sent, nameOf),
    seen: (found) => (settings.currency = found.pantry.terms.currency),
  });

  /** Take over a file: all of it, or nothing when a line of it cannot be used. True when it was. */
  function read(what: PantryFile, file: File): Promise<boolean> {
    return have(async () => {
      const answer = await fetch(`/api/pantry/${what}`, {
        method: "POST",
        body: await file.arrayBuffer(),
        headers: { ...OURS, "Content-Type": "text/csv" },
      });
      const found: unknown = await answer.json();
      if (!answer.ok) throw new Refused(found as Refused["problem"]);
      return found as Larder;
    });
  }

  const names = computed(() => {
    const found = new Map<string, string>();
    for (const one of larder.value?.recipes ?? []) if (one.cake) found.set(one.key, one.name);
    for (const one of larder.value?.ingredients ?? []) found.set(one.key, one.name);
    for (const one of larder.value?.media ?? []) found.set(one.key, one.name);
    return found;
  });
  const cakes = computed((): Recipe[] => (larder.value?.recipes ?? []).filter((one) => one.cake));

  /** What people call an item, with the size of goods. */
  function nameOf(item: string): string {
    const label = larder.value?.labels[item];
    return label ? settings.labelWords(label) : (names.value.get(item) ?? item);
  }

  /** Have what is made and bought at hand, asked for once. */
  async function ready(): Promise<void> {
    if (!larder.value) await kept.open();
  }

  return { larder, pantry, ready, ...kept, cakes, names, read, nameOf };
});
