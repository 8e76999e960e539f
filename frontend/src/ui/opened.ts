/** Which dialog is open stands in the address: Back closes it, and a page loaded anew has it open again. */
import { computed, type WritableComputedRef } from "vue";
import { type HistoryState, useRoute, useRouter } from "vue-router";

export function useOpened() {
  const route = useRoute();
  const router = useRouter();

  /** Whether the dialog of that name is open; set, it is opened or closed. */
  function opened(name: string): WritableComputedRef<boolean> {
    return computed({
      get: () => route.query.open === name,
      set(wanted) {
        if (wanted === (route.query.open === name)) return;
        const query = { ...route.query, open: wanted ? name : undefined };
        if (wanted) void router.push({ query });
        // Where it was opened from here, closing it is going back: Back afterwards does not open it again.
        else if (router.resolve({ query }).fullPath === (window.history.state as HistoryState | null)?.back)
          router.back();
        else void router.replace({ query });
      },
    });
  }

  return { opened };
}
