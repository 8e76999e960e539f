/** The recipe on the page: what is changed of it and not kept yet stays in this browser until it is kept or left. */
import { computed, ref, watch } from "vue";
import { answered, api, Refused } from "@/api/client";
import { complaintWords } from "@/api/complaint";
import type { Recipe, Scaled } from "@/api/types";
import { keep as keepText, recall } from "@/base/browser";
import { copied } from "@/base/copy";
import { parseWeight, UnitError } from "@/base/units";
import { LeftAsItIs } from "@/kitchen/kept";
import { ownKey, usePantry } from "@/kitchen/pantry";
import { useSettings } from "@/kitchen/settings";

const KEPT = "amber:recipes";

const BEGUN = "amber:recipes-begun";

/** What this browser kept by key: recipes that were changed and not kept, and what each was before that. */
function unkept<T>(place: string): Record<string, T> {
  try {
    return JSON.parse(recall(place) ?? "{}") as Record<string, T>;
  } catch {
    return {};
  }
}

export function useRecipes() {
  const pantry = usePantry();
  const settings = useSettings();
  const key = ref("");
  const draft = ref<Recipe | null>(null);
  const drafts = ref(unkept<Recipe>(KEPT));
  /** What each recipe said, as JSON, when its changes were begun. */
  const begun = unkept<string>(BEGUN);
  const wantedText = ref("");
  const scaled = ref<Scaled | null>(null);
  const wrong = ref("");

  const recipes = computed(() =>
    [...(pantry.larder?.recipes ?? [])].sort((a, b) => a.name.localeCompare(b.name)),
  );
  const own = computed(() => new Set((pantry.pantry?.recipes ?? []).map((one) => one.key)));
  const inUse = computed(() => pantry.larder?.in_use ?? {});
  const asKept = computed(() => recipes.value.find((one) => one.key === key.value));
  const changed = computed(
    () => draft.value !== null && JSON.stringify(draft.value) !== JSON.stringify(asKept.value),
  );
  /** Another recipe counts for what this one makes. */
  const rival = computed(() => {
    const one = draft.value;
    return one !== null && !one.cake && inUse.value[one.makes] !== one.key;
  });

  function choose(recipe: Recipe): void {
    if (recipe.key !== key.value) [wrong.value, wantedText.value] = ["", ""];
    key.value = recipe.key;
    if (!drafts.value[recipe.key]) begun[recipe.key] = JSON.stringify(recipe);
    draft.value = copied(drafts.value[recipe.key] ?? recipe);
  }

  watch(
    recipes,
    (found) => {
      const kept = found.find((one) => one.key === key.value) ?? found.find((one) => !one.cake);
      if (kept) choose(kept);
    },
    { immediate: true },
  );
  watch(
    draft,
    () => {
      pantry.forgive();
      const others = Object.entries(drafts.value).filter(([other]) => other !== key.value);
      const mine = changed.value && draft.value ? [[key.value, copied(draft.value)] as const] : [];
      drafts.value = Object.fromEntries([...others, ...mine]);
      keepText(KEPT, JSON.stringify(drafts.value));
      keepText(BEGUN, JSON.stringify(begun));
    },
    { deep: true },
  );

  /** Scaled by the server as it stands, kept or not; only the newest answer counts. */
  let asked = 0;
  watch(
    [draft, wantedText],
    async () => {
      const recipe = draft.value;
      if (!recipe) return;
      const mine = (asked += 1);
      try {
        const grams = wantedText.value.trim() ? parseWeight(wantedText.value, settings.weight) : 1000;
        const body = { recipe: copied(recipe), wanted_g: grams };
        const found = (await answered(api.POST("/api/pantry/scale", { body }))) as Scaled;
        if (mine !== asked) return;
        [scaled.value, wrong.value] = [found, ""];
      } catch (error) {
        if (mine !== asked) return;
        if (error instanceof UnitError) wrong.value = error.message;
        else if (error instanceof Refused)
          wrong.value = error.problem.errors.map((one) => complaintWords(one)).join(" ");
        else wrong.value = "The kitchen's server cannot be reached just now.";
      }
    },
    { deep: true, immediate: true },
  );

  async function keep(): Promise<void> {
    const recipe = draft.value;
    if (!recipe) return;
    const began = begun[recipe.key] ?? JSON.stringify(asKept.value);
    await pantry.change((kept) => {
      const now = kept.recipes.find((one) => one.key === recipe.key);
      const found = JSON.stringify(now);
      // Asked once; from then on theirs is known.
      begun[recipe.key] = found ?? began;
      if (now && found !== began)
        throw new LeftAsItIs(
          "Somebody else changed this recipe meanwhile. Yours is still here: keep it to put it in place of theirs, or leave it.",
        );
      kept.recipes = [...kept.recipes.filter((one) => one.key !== recipe.key), recipe];
    });
  }

  function leave(): void {
    if (asKept.value) draft.value = copied(asKept.value);
  }

  async function dropOwn(): Promise<void> {
    const gone = key.value;
    leave();
    await pantry.change((kept) => {
      kept.recipes = kept.recipes.filter((one) => one.key !== gone);
      const others = Object.entries(kept.chosen).filter(([, chosen]) => chosen !== gone);
      kept.chosen = Object.fromEntries(others);
    });
  }

  function use(): void {
    const recipe = draft.value;
    if (recipe) void pantry.change((kept) => (kept.chosen[recipe.makes] = recipe.key));
  }

  async function another(cake: boolean): Promise<void> {
    const made = ownKey();
    const recipe: Recipe = {
      key: made,
      name: cake ? "A cake of ours" : "A recipe of ours",
      makes: cake ? made : "american_buttercream",
      cake,
      batter_g_per_ml: cake ? 0.9 : null,
      lines: [
        { item: "butter", amount: 250, unit: "g", whole: false },
        { item: "icing_sugar", amount: 250, unit: "g", whole: false },
      ],
      steps: [],
      yield_g: null,
      by_quarters: cake,
    };
    const before = [key.value, draft.value] as const;
    [key.value, draft.value] = [made, null];
    // The program's recipe goes on counting until this one is taken.
    const kept = await pantry.change((kept) => {
      if (!cake) kept.chosen[recipe.makes] ??= inUse.value[recipe.makes] ?? recipe.makes;
      kept.recipes.push(recipe);
    });
    if (!kept && key.value === made) [key.value, draft.value] = before;
  }

  return { key, draft, drafts, wantedText, scaled, wrong, recipes, own, inUse, changed, rival, choose, keep, leave, dropOwn, use, another }; // prettier-ignore
}
