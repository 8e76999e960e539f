/** The drafts of the open order: this tab's own, and those that closed tabs left behind. */
import { ref, shallowRef } from "vue";
import { answered, api, Refused } from "@/api/client";
import type { Document } from "@/api/types";
import { type Draft, draftAt, dropDraft, findDrafts, keepDraft, type KeptDraft, ownKey } from "./drafts";

interface Found {
  key: string;
  drafts: KeptDraft[];
}

export function useOrderDrafts() {
  /** This browser has no room for the latest edits. */
  const undrafted = ref(false);
  /** A draft that this version cannot read. It stays until somebody drops it. */
  const stray = shallowRef<{ words: string; document: unknown; key: string } | null>(null);
  let own = "";
  let waiting: KeptDraft[] = [];

  async function find(id: string): Promise<Found> {
    return { key: await ownKey(id), drafts: await findDrafts(id) };
  }

  function begin({ key, drafts }: Found): void {
    own = key;
    waiting = drafts;
  }

  function close(): void {
    begin({ key: "", drafts: [] });
    stray.value = null;
    undrafted.value = false;
  }

  /** Store the tab's own draft. */
  function keep(draft: Draft): void {
    if (own && stray.value?.key !== own) undrafted.value = !keepDraft(own, draft);
  }

  /** Drop the tab's own draft, once the server has it. */
  function drop(): void {
    undrafted.value = false;
    if (stray.value?.key !== own) dropDraft(own);
  }

  /** Drop the draft of an order that was closed meanwhile, if it holds nothing newer than what was saved. */
  function dropIfSame(key: string, saved: Document): void {
    if (JSON.stringify(draftAt(key)?.document) === JSON.stringify(saved)) dropDraft(key);
  }

  /** The next waiting draft that differs from the document, in today's format. */
  async function next(now: Document): Promise<KeptDraft | null> {
    for (let kept = waiting.shift(); kept; kept = waiting.shift()) {
      const draft = await read(kept);
      if (!draft) continue;
      if (JSON.stringify(draft.document) !== JSON.stringify(now)) return draft;
      dropDraft(draft.key);
    }
    return null;
  }

  /** A draft in today's format; one that cannot be read becomes the stray. */
  async function read(draft: KeptDraft): Promise<KeptDraft | null> {
    try {
      const document = await answered(api.POST("/api/read", { body: draft.document }));
      return { ...draft, document: document as Document };
    } catch (error) {
      if (!(error instanceof Refused) || error.problem.status >= 500) return draft;
      stray.value = { words: error.problem.detail, document: draft.document, key: draft.key };
      return null;
    }
  }

  /** The tab's own draft holds this one now. */
  function adopted(draft: KeptDraft): void {
    if (draft.key !== own && !undrafted.value) dropDraft(draft.key);
  }

  function dropStray(): void {
    if (stray.value) dropDraft(stray.value.key);
    stray.value = null;
  }

  return {
    undrafted,
    stray,
    key: () => own,
    find,
    begin,
    close,
    keep,
    drop,
    dropIfSame,
    next,
    adopted,
    dropStray,
  };
}
