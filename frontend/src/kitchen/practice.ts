/** The kitchen's usual: how it works where an order does not say. Kept by the server; a new order takes a copy. */
import { defineStore } from "pinia";
import { computed } from "vue";
import { answered, api } from "@/api/client";
import { complaintWords } from "@/api/complaint";
import type { Handbook, KeptPractice, Practice } from "@/api/types";
import { useHandbook } from "./handbook";
import { useKept } from "./kept";
import { useSettings } from "./settings";

/** A value of a practice that is one number or one choice; the techniques are three each. */
export type HabitName = Exclude<keyof Practice, "techniques">;
export type HabitValue = Practice[HabitName];
export type Habit = Handbook["habits"][number] & { name: HabitName };
export type TechniqueName = keyof Practice["techniques"];
export type ShareName = keyof Practice["techniques"][TechniqueName];

/** Whether two values are the same, to within what a number loses on its way through other units. */
function alike(one: HabitValue, other: HabitValue): boolean {
  return typeof one === "number" && typeof other === "number" ? Math.abs(one - other) <= 1e-9 : one === other;
}

/** Set a value of a practice; what is emptied becomes the usual again. */
export function setHabit(
  practice: Practice,
  name: HabitName,
  value: HabitValue | null,
  usual?: Practice | null,
): void {
  Object.assign(practice, { [name]: value ?? usual?.[name] ?? practice[name] });
}

export const usePractice = defineStore("practice", () => {
  const handbook = useHandbook();
  const settings = useSettings();
  /** What a kitchen starts from, on the marks of its own ruler. */
  const first = computed(() =>
    settings.length === "in" ? handbook.book?.practice_in_inches : handbook.book?.practice,
  );
  const { shown, whole, ...kept } = useKept<KeptPractice, Practice>({
    what: "practice",
    ask: async () => (await answered(api.GET("/api/practice"))) as KeptPractice,
    send: async (began_from, practice) =>
      (await answered(api.PUT("/api/practice", { body: { began_from, practice } }))) as KeptPractice,
    // Number 0 is what nobody has saved yet.
    of: (found) => (found.number ? found.practice : (first.value ?? found.practice)),
    say: (complaint) => complaintWords(complaint),
    away: "The kitchen's usual could not be read just now; the program's own is shown.",
  });
  const practice = computed(() => whole.value ?? first.value ?? null);
  /** What a new order must be told: the server starts from metric marks until somebody saves a usual. */
  const unsaved = computed(() => (settings.length === "in" && !shown.value?.number ? practice.value : null));
  const habits = computed(() => (handbook.book?.habits ?? []) as Habit[]);

  /** What of an order's practice is other than the kitchen's usual, by its names. */
  function differences(own: Practice): string[] {
    const usual = practice.value;
    if (!usual) return [];
    const changed = habits.value
      .filter(({ name }) => !alike(own[name], usual[name]))
      .map((habit) => habit.words);
    for (const handling of handbook.book?.handlings ?? []) {
      const name = handling.name as TechniqueName;
      if (JSON.stringify(own.techniques[name]) !== JSON.stringify(usual.techniques[name]))
        changed.push(handling.words);
    }
    return changed;
  }

  return { shown, practice, first, unsaved, habits, differences, ...kept };
});
