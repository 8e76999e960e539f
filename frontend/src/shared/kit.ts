/** What the kitchen owns: asked for once, kept by the server, and sent along with every plan. */
import { defineStore } from "pinia";
import { ref, shallowRef } from "vue";
import { answered, api } from "@/api/client";
import type { Kit } from "@/api/types";
import { useHandbook } from "./handbook";

export const useKit = defineStore("kit", () => {
  const kit = shallowRef<Kit | null>(null);
  const trouble = ref("");

  /** Ask for the kit; without a connection the program's starting set is planned with. */
  async function open(): Promise<void> {
    if (kit.value) return;
    try {
      kit.value = await answered(api.GET("/api/kit"));
    } catch {
      kit.value = useHandbook().book?.kit ?? null;
      trouble.value = "What you own could not be read just now; a usual small kitchen's set is taken.";
    }
  }

  /** Keep `next` as what the kitchen owns. What cannot be kept stays on the screen, and says so. */
  async function save(next: Kit): Promise<void> {
    kit.value = next;
    try {
      await answered(api.PUT("/api/kit", { body: next }));
      trouble.value = "";
    } catch {
      trouble.value = "This could not be kept just now. It stays here until the page is left; try again.";
    }
  }

  return { kit, trouble, open, save };
});
