/** Edits that the server has not yet taken, kept in this browser so that nothing is lost. */
import type { Document } from "@/api/types";
import { keep, letGo, recall } from "@/base/browser";

export interface Draft {
  beganFrom: number;
  document: Document;
}

const key = (id: string): string => `amber:draft:${id}`;

/** Keep a draft of an order. False where this browser has no room for it. */
export function keepDraft(id: string, draft: Draft): boolean {
  return keep(key(id), JSON.stringify(draft));
}

export function dropDraft(id: string): void {
  letGo(key(id));
}

export function findDraft(id: string): Draft | null {
  try {
    const text = recall(key(id));
    const found = text ? (JSON.parse(text) as Draft | null) : null;
    return found?.document ? found : null;
  } catch {
    return null;
  }
}
