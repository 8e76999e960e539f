/** A computed value that keeps its identity while what it says stays the same, so that nothing is redrawn for it. */
import { computed, type ComputedRef } from "vue";

export function stable<T>(read: () => T): ComputedRef<T> {
  return computed<T>((before) => {
    const now = read();
    return before !== undefined && JSON.stringify(before) === JSON.stringify(now) ? before : now;
  });
}
