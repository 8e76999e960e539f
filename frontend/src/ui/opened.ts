/** Which dialog is open stands in the address: Back closes it, and a page loaded anew has it open again. */
import { computed, type WritableComputedRef } from "vue";
import { type HistoryState, useRoute, useRouter } from "vue-router";

export type Dialog = "earlier" | "keys" | "kit" | "line" | "versions" | "words";

export function useOpened() {
  const route = useRoute();
  const router = useRouter();

  function open(name: Dialog): void {
    if (route.query.open !== name) void router.push({ query: { ...route.query, open: name } });
  }

  function close(): void {
    const query = { ...route.query, open: undefined };
    // Where it was opened from here, closing it is going back: Back afterwards does not open it again.
    if (router.resolve({ query }).fullPath === (window.history.state as HistoryState | null)?.back)
      router.back();
    else void router.replace({ query });
  }

  /** Whether the dialog of that name is open; set, it is opened or closed. */
  function opened(name: Dialog): WritableComputedRef<boolean> {
    return computed({
      get: () => route.query.open === name,
      set(wanted) {
        if (wanted) open(name);
        else if (route.query.open === name) close();
      },
    });
  }

  return { open, opened };
}
