/**
 * What the server works out of orders, asked for again as these change. Only the newest answer counts, and what was
 * there stays on screen until it comes.
 */
import { ref, shallowRef } from "vue";
import { fieldWordsOf, isBusy } from "@/api/client";
import { Newest } from "@/base/newest";

const ASK_AGAIN_MS = 1500;

export interface Asking<T> {
  /** Ask for it; null where there is nothing to ask for. */
  ask: (signal: AbortSignal) => Promise<T | null>;
  /** What it is asked for: what was found for another is taken off the screen at once. */
  place: () => string;
  /** What an old answer is, where the server cannot be reached: “These hours are from before.” */
  old: string;
  /** Called with every answer. */
  came?: () => void;
  /** Whether an answer is not whole yet: it is shown, and asked for again. */
  unfinished?: (found: T) => boolean;
}

export function useAsked<T>({ ask, place, old, came, unfinished }: Asking<T>) {
  const found = shallowRef<T | null>(null);
  const trouble = ref("");
  const busy = ref(false);
  /** The progress of an answer that is not ready yet. */
  const awaited = ref("");
  const newest = new Newest();
  let shownFor = "";

  async function refresh(): Promise<void> {
    const signal = newest.begin();
    if (shownFor !== place()) found.value = null;
    busy.value = true;
    try {
      const answer = await ask(signal);
      if (signal.aborted) return;
      found.value = answer;
      shownFor = place();
      trouble.value = "";
      awaited.value = "";
      came?.();
      if (answer && unfinished?.(answer)) newest.later(refresh, ASK_AGAIN_MS);
    } catch (error) {
      if (signal.aborted) return;
      awaited.value = isBusy(error) ? error.problem.detail : "";
      if (awaited.value) {
        trouble.value = "";
        newest.later(refresh, ASK_AGAIN_MS);
        return;
      }
      trouble.value = fieldWordsOf(error, `The kitchen's server cannot be reached just now. ${old}`);
    } finally {
      if (newest.is(signal)) busy.value = false;
    }
  }

  return { found, trouble, busy, awaited, refresh };
}
