/** What the kitchen owns: kept by the server, and sent along with every plan. */
import { defineStore } from "pinia";
import { computed } from "vue";
import { answered, api } from "@/api/client";
import { complaintWords } from "@/api/complaint";
import type { KeptKit, Kit } from "@/api/types";
import { useHandbook } from "./handbook";
import { useKept } from "./kept";

export const useKit = defineStore("kit", () => {
  const handbook = useHandbook();
  const { shown, whole, ...kept } = useKept<KeptKit, Kit>({
    what: "kit",
    ask: async () => (await answered(api.GET("/api/kit"))) as KeptKit,
    send: async (began_from, kit) =>
      (await answered(api.PUT("/api/kit", { body: { began_from, kit } }))) as KeptKit,
    of: (found) => found.kit,
    say: (complaint) => complaintWords(complaint),
    away: "What you own could not be read just now; a usual small kitchen's set is taken.",
  });
  /** What is planned with: without a connection to read what is owned, the program's starting set. */
  const kit = computed(() => whole.value ?? handbook.book?.kit ?? null);

  /** Have what is owned at hand, asked for once. */
  async function ready(): Promise<void> {
    if (!shown.value) await kept.open();
  }

  return { kit, shown, ready, ...kept };
});
