/** A cake as it would be, shown while something is dragged or typed: one is planned at a time, the newest after it. */
import type { Document, Plan } from "@/api/types";

export interface Trials {
  begin: (draft: Document) => void;
  /** The trial is over, and what follows it shows itself. */
  drop: () => void;
  /** What was tried out is let go of. */
  end: () => void;
}

/** `letGo` shows the cake again as its document says. What cannot be planned is not shown: the edit itself says why. */
export function useTrials(by: {
  plan: (draft: Document) => Promise<Plan>;
  show: (plan: Plan) => void;
  letGo: () => void;
}): Trials {
  let next: Document | null = null;
  let planning = false;
  let begun = false;

  async function all(): Promise<void> {
    planning = true;
    while (next) {
      const mine = next;
      next = null;
      try {
        const found = await by.plan(mine);
        if (begun) by.show(found);
      } catch {
        continue;
      }
    }
    planning = false;
  }

  function begin(draft: Document): void {
    next = draft;
    begun = true;
    if (!planning) void all();
  }

  function drop(): void {
    begun = false;
    next = null;
  }

  function end(): void {
    if (!begun) return;
    drop();
    by.letGo();
  }

  return { begin, drop, end };
}
