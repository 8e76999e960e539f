/** Edits that the server has not yet taken, kept in this browser so that nothing is lost: a draft of each tab. */
import type { Document } from "@/api/types";
import { keep, keysOf, letGo, recall } from "@/base/browser";
import { isOpen, thisTab } from "@/base/tabs";

export interface Draft {
  beganFrom: number;
  document: Document;
}

/** A draft, and what it is kept under. */
export interface KeptDraft extends Draft {
  key: string;
}

const begin = (id: string): string => `amber:draft:${id}`;

/** What a draft of this tab is kept under. */
export const ownKey = async (id: string): Promise<string> => `${begin(id)}:${await thisTab()}`;

/** Keep a draft. False where this browser has no room for it. */
export function keepDraft(key: string, draft: Draft): boolean {
  return keep(key, JSON.stringify(draft));
}

export const dropDraft = letGo;

/** The draft that is kept under a key. */
export function draftAt(key: string): KeptDraft | null {
  try {
    const text = recall(key);
    const found = text ? (JSON.parse(text) as Draft | null) : null;
    return found?.document ? { ...found, key } : null;
  } catch {
    return null;
  }
}

/** The drafts of an order: this tab's own first, then those of tabs that are open no longer. */
export async function findDrafts(id: string): Promise<KeptDraft[]> {
  const own = await ownKey(id);
  const keys = [own];
  for (const key of keysOf(begin(id)).sort())
    if (key !== own && !(await isOpen(key.slice(begin(id).length + 1)))) keys.push(key);
  return keys.map(draftAt).filter((draft) => draft !== null);
}
