/** Dragging something in the drawing: it follows the pointer, and is taken once, when it is let go. */
import { shallowRef, type ShallowRef } from "vue";

export function useDrag<T>(read: (event: PointerEvent) => T, take: (value: T) => void) {
  const held = shallowRef(null) as ShallowRef<T | null>;

  function start(event: PointerEvent): void {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    event.preventDefault();
    held.value = read(event);
  }

  function move(event: PointerEvent): void {
    if (held.value !== null) held.value = read(event);
  }

  function end(): void {
    const value = held.value;
    held.value = null;
    if (value !== null) take(value);
  }

  function giveUp(): void {
    held.value = null;
  }

  return { held, start, move, end, giveUp };
}

/** The nearest of some sizes within reach of a size, or nothing. */
export function snapTo(size: number, sizes: readonly number[], reach: number): number | null {
  let best: number | null = null;
  for (const one of sizes) {
    if (Math.abs(one - size) <= reach && (best === null || Math.abs(one - size) < Math.abs(best - size)))
      best = one;
  }
  return best;
}
