/** What went wrong and no screen was there to say it: said at the foot of every screen until it is read. */
import { ref } from "vue";
import { Refused, Unreachable } from "./client";

export const mishapWords = ref("");

/** Say what went wrong. An answer that was given up for a newer one is nothing to say. */
export function mishap(error: unknown): void {
  if (error instanceof DOMException && error.name === "AbortError") return;
  if (error instanceof Unreachable)
    mishapWords.value = "The kitchen's server cannot be reached just now. Nothing was changed; try again.";
  else if (error instanceof Refused) mishapWords.value = error.problem.detail;
  else mishapWords.value = "That did not work. What is saved is safe; load the page again and try once more.";
}
