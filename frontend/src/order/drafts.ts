/** Edits that the server has not yet taken, kept in this browser so that nothing is lost. */
import type { Document } from "@/api/types";

export interface Draft {
  beganFrom: number;
  document: Document;
}

const key = (id: string): string => `amber:draft:${id}`;

export function keepDraft(id: string, draft: Draft): void {
  localStorage.setItem(key(id), JSON.stringify(draft));
}

export function dropDraft(id: string): void {
  localStorage.removeItem(key(id));
}

export function findDraft(id: string): Draft | null {
  try {
    const text = localStorage.getItem(key(id));
    return text ? (JSON.parse(text) as Draft) : null;
  } catch {
    return null;
  }
}
