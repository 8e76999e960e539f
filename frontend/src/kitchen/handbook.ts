/** What does not change while the program runs: media, usual values, limits and rules. Asked for once. */
import { defineStore } from "pinia";
import { computed, shallowRef } from "vue";
import { answered, api } from "@/api/client";
import type { Handbook, Limit, RuleText } from "@/api/types";

export const useHandbook = defineStore("handbook", () => {
  const book = shallowRef<Handbook | null>(null);

  async function open(): Promise<void> {
    book.value ??= await answered(api.GET("/api/handbook"));
  }

  const media = computed(() => book.value?.media ?? []);

  /** The limit of a field, by its name in the design file. */
  function limit(name: string): Limit {
    const found = book.value?.limits[name];
    if (!found) throw new Error(`no limit is called ${name}`);
    return found;
  }

  function rule(id: string): RuleText | undefined {
    return book.value?.rules[id];
  }

  function mediumName(key: string): string {
    return media.value.find((medium) => medium.key === key)?.name ?? key;
  }

  /** What is chosen among, by the name of its list: kinds of media, allergens, shapes of tins and boards. */
  function words<T extends string>(list: string): { value: T; words: string }[] {
    return (book.value?.words[list] ?? []).map((one) => ({ value: one.value as T, words: one.words }));
  }

  /** What one of a list is called. */
  const wordOf = (list: string, value: string): string =>
    words(list).find((one) => one.value === value)?.words ?? value;

  return { book, media, open, limit, rule, mediumName, words, wordOf };
});
