/**
 * What is typed into a field, from the first key until it is taken: it stays as it was typed, whatever is redrawn
 * meanwhile, and what cannot be taken stays with a sentence beside it, until it is mended or given up.
 */
import { onMounted, ref } from "vue";
import { visit } from "@/base/browser";

/** Where what is half typed is kept while the page is loaded anew: by its page and its place there. */
function placeOf(pointer: string | undefined): string | null {
  return pointer ? `typed ${window.location.pathname.split("/").slice(0, 3).join("/")} ${pointer}` : null;
}

/**
 * `take` takes what was typed, or says in a sentence what would be taken. What is half typed at a `pointer` is there
 * again when the page is loaded anew.
 */
export function useTyped(take: (text: string) => string | Promise<string>, pointer?: string) {
  /** What stands in the field, where that is not what is kept. */
  const typed = ref<string | null>(null);
  const wrong = ref("");
  const place = placeOf(pointer);

  function keep(text: string | null): void {
    if (!place) return;
    if (text === null) visit.letGo(place);
    else visit.keep(place, text);
  }

  onMounted(() => {
    const left = place && visit.recall(place);
    if (left === null) return;
    typed.value = left;
    void finish();
  });

  /** Begin to type over what stands there; what was wrong before stands there still. */
  function begin(text: string): void {
    typed.value ??= text;
  }

  function type(event: Event): void {
    typed.value = (event.target as HTMLInputElement).value;
    keep(typed.value);
  }

  async function finish(): Promise<void> {
    const text = typed.value;
    if (text === null) return;
    const said = take(text);
    wrong.value = typeof said === "string" ? said : await said;
    if (!wrong.value && typed.value === text) {
      typed.value = null;
      keep(null);
    }
  }

  function giveUp(): void {
    typed.value = null;
    wrong.value = "";
    keep(null);
  }

  return { typed, wrong, begin, type, finish, giveUp };
}
