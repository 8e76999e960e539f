/** Unsaved edits in this browser: a draft for each order and tab. */
import type { Document } from "@/api/types";
import { keep, keysOf, letGo, recall } from "@/base/browser";
import { isOpen, thisTab } from "@/base/tabs";

export interface Draft {
  beganFrom: number;
  document: Document;
}

/** A draft with its key in the browser's storage. */
export interface KeptDraft extends Draft {
  key: string;
}

const prefix = (id: string): string => `amber:draft:${id}`;

/** The key of this tab's draft of an order. */
export const ownKey = async (id: string): Promise<string> => `${prefix(id)}:${await thisTab()}`;

/** Store a draft. False if this browser has no room for it. */
export function keepDraft(key: string, draft: Draft): boolean {
  return keep(key, JSON.stringify(draft));
}

export const dropDraft = letGo;

/** The draft under a key. */
export function draftAt(key: string): KeptDraft | null {
  try {
    const text = recall(key);
    const found = text ? (JSON.parse(text) as Draft | null) : null;
    return found?.document ? { ...found, key } : null;
  } catch {
    return null;
  }
}

/** The drafts of an order: this tab's own first, then those of closed tabs. */
export async function findDrafts(id: string): Promise<KeptDraft[]> {
  const own = await ownKey(id);
  const keys = [own];
  for (const key of keysOf(prefix(id)).sort())
    if (key !== own && !(await isOpen(key.slice(prefix(id).length + 1)))) keys.push(key);
  return keys.map(draftAt).filter((draft) => draft !== null);
}
