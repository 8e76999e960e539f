/**
 * What is typed into a field, from the first key until it is taken: it stays as it was typed, whatever is redrawn
 * meanwhile, and what cannot be taken stays with a sentence beside it, until it is mended or given up.
 */
import { ref } from "vue";

/** `take` takes what was typed, or says in a sentence what would be taken. */
export function useTyped(take: (text: string) => string | Promise<string>) {
  /** What stands in the field, where that is not what is kept. */
  const typed = ref<string | null>(null);
  const wrong = ref("");

  /** Begin to type over what stands there; what was wrong before stands there still. */
  function begin(text: string): void {
    typed.value ??= text;
  }

  function type(event: Event): void {
    typed.value = (event.target as HTMLInputElement).value;
  }

  async function finish(): Promise<void> {
    const text = typed.value;
    if (text === null) return;
    const said = take(text);
    wrong.value = typeof said === "string" ? said : await said;
    if (!wrong.value && typed.value === text) typed.value = null;
  }

  function giveUp(): void {
    typed.value = null;
    wrong.value = "";
  }

  return { typed, wrong, begin, type, finish, giveUp };
}
