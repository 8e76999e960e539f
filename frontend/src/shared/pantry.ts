/** What the kitchen makes and buys: recipes, prices, larder and terms, kept by the server. */
import { defineStore } from "pinia";
import { computed, ref, shallowRef, toRaw } from "vue";
import { answered, api, type Complaint, Refused } from "@/api/client";
import type { Larder, Medium, Pantry, Recipe } from "@/api/types";
import { complaintWords } from "./complaint";
import { copied } from "./copy";
import { History } from "./history";
import { useSettings } from "./settings";

export type PantryFile = "prices" | "larder" | "recipes";

/** Where a density comes from, to follow "taken". */
export function sourceWords(source: Medium["density_source"]): string {
  if (source.origin === "this kitchen") return "as you weighed it";
  return source.reference ? `${source.origin}: ${source.reference}` : source.origin;
}

export const usePantry = defineStore("pantry", () => {
  const settings = useSettings();
  const larder = shallowRef<Larder | null>(null);
  const trouble = ref("");
  const complaints = shallowRef<Complaint[]>([]);
  let saving: Promise<boolean> = Promise.resolve(true);
  /** How many changes are on their way to the server. */
  const underway = ref(0);
  let history = new History<Pantry>();
  const canUndo = ref(false);
  const canRedo = ref(false);

  function take(found: Larder): void {
    [canUndo.value, canRedo.value] = [history.canUndo, history.canRedo];
    larder.value = found;
    settings.currency = found.pantry.terms.currency;
    trouble.value = "";
    complaints.value = [];
  }

  function failed(error: unknown, sent?: Pantry): void {
    complaints.value = error instanceof Refused ? error.problem.errors : [];
    const [first] = complaints.value;
    if (!(error instanceof Refused))
      trouble.value = "The kitchen's server cannot be reached just now. Nothing was changed; try again.";
    else if (error.problem.status === 422 && first && !first.pointer.startsWith("#/lines"))
      trouble.value = complaintWords(first, sent, nameOf);
    else trouble.value = error.problem.detail;
  }

  /** What was wrong is being put right, or left. */
  function forgive(): void {
    trouble.value = "";
    complaints.value = [];
  }

  /** Show what is kept now. What was done before somebody else's change can no longer be undone. */
  async function open(): Promise<void> {
    try {
      const found = (await answered(api.GET("/api/pantry"))) as Larder;
      if (found.number !== larder.value?.number) history = new History<Pantry>();
      take(found);
    } catch (error) {
      failed(error);
    }
  }

  /** One change after another: keep what `how` makes of the pantry as it then stands, and tell the history of it. */
  function replace(
    how: (pantry: Pantry) => Pantry | undefined,
    remember: (before: Pantry) => void,
  ): Promise<boolean> {
    underway.value += 1;
    saving = saving.then(async () => {
      const before = larder.value;
      let sent: Pantry | undefined;
      try {
        const pantry = before && how(structuredClone(toRaw(before.pantry)));
        if (!pantry) return false;
        sent = copied(pantry);
        const body = { began_from: before.number, pantry: sent };
        const found = (await answered(api.PUT("/api/pantry", { body }))) as Larder;
        remember(before.pantry);
        take(found);
        return true;
      } catch (error) {
        failed(error, sent);
        if (error instanceof Refused && error.problem.status === 409) {
          await open();
          trouble.value =
            "Somebody else changed this meanwhile. What they kept is shown now: make your change again.";
        }
        return false;
      } finally {
        underway.value -= 1;
      }
    });
    return saving;
  }

  /**
   * Change what is kept, as it stands when its turn comes. True when it was kept; else `trouble` says why, and
   * nothing is changed. A `how` that finds nothing left to change gives back false.
   */
  function change(how: (pantry: Pantry) => unknown): Promise<boolean> {
    return replace(
      (pantry) => (how(pantry) === false ? undefined : pantry),
      (before) => history.remember(before),
    );
  }

  const undo = (): Promise<boolean> =>
    replace(
      () => history.before,
      (now) => history.undo(now),
    );
  const redo = (): Promise<boolean> =>
    replace(
      () => history.after,
      (now) => history.redo(now),
    );

  /** Take over a file: all of it, or nothing when a line of it cannot be used. True when it was. */
  async function read(what: PantryFile, file: File): Promise<boolean> {
    await saving;
    const before = larder.value?.pantry;
    try {
      const body = await file.arrayBuffer();
      const answer = await fetch(`/api/pantry/${what}`, {
        method: "POST",
        body,
        headers: { "Content-Type": "text/csv" },
      });
      const found: unknown = await answer.json();
      if (!answer.ok) throw new Refused(found as Refused["problem"]);
      if (before) history.remember(before);
      take(found as Larder);
      return true;
    } catch (error) {
      failed(error);
      return false;
    }
  }

  const pantry = computed(() => larder.value?.pantry ?? null);
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

  return {
    larder,
    pantry,
    underway,
    trouble,
    complaints,
    cakes,
    names,
    canUndo,
    canRedo,
    open,
    forgive,
    change,
    undo,
    redo,
    read,
    nameOf,
  };
});
