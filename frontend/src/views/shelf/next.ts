/** What is due next, and what it needs before it can leave. */
import type { Card, Check } from "@/api/types";
import { clockWords, dayWords } from "@/base/time";

export interface Next {
  id: string;
  title: string;
  /** What the first thing it needs is about. */
  about: Check["subject"];
  when: string;
  does: string;
}

const DAY_MS = 86_400_000;

/** The first order due from `now` on, as a sentence in parts; nothing where none is due. */
export function nextWords(cards: readonly Card[], now: Date): Next | null {
  const first = cards
    .filter((card) => card.due && new Date(card.due) >= now)
    .toSorted((a, b) => (a.due ?? "").localeCompare(b.due ?? ""))[0];
  if (!first?.due) return null;
  const due = new Date(first.due);
  const found = first.outside?.attention ?? [];
  const worst = found.find((check) => check.severity === "trouble") ?? found[0];
  return {
    id: first.id,
    title: first.title,
    about: worst?.subject ?? "order",
    when: `${daysWords(due, now)}, ${clockWords(due)}`,
    does: doesWords(first, found.length),
  };
}

/** What it needs, as far as it is known: one that cannot be shown, or not yet, may need anything. */
function doesWords({ outside, pending }: Card, count: number): string {
  if (!outside)
    return pending ? ". What it needs is still being worked out." : ". Open it to see what it needs.";
  return count ? needs(count) : ". Nothing stands in its way.";
}

function needs(count: number): string {
  return count === 1 ? ". One thing is to be settled first." : `. ${count} things are to be settled first.`;
}

function daysWords(due: Date, now: Date): string {
  const begin = (date: Date): number =>
    new Date(date.getFullYear(), date.getMonth(), date.getDate()).getTime();
  const days = Math.round((begin(due) - begin(now)) / DAY_MS);
  if (days === 0) return "today";
  if (days === 1) return "tomorrow";
  return days < 7 ? `in ${days} days, ${dayWords(due)}` : dayWords(due);
}
