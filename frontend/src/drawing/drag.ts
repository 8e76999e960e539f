/** Dragging something in the drawing: it follows the pointer, and is taken once, when it is let go. */
import { shallowRef, type ShallowRef } from "vue";
import type { LengthUnit } from "@/base/units";

/** Where a pointer is in the drawing it moves over, in pixels from its left and from its top. */
export function pixelsIn(event: PointerEvent): [number, number] {
  const frame = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
  return [event.clientX - (frame?.left ?? 0), event.clientY - (frame?.top ?? 0)];
}

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** How far an arrow key moves what it is pressed on, right and up, in mm: 1/8 in, or 2 mm. */
export function arrowStep(event: KeyboardEvent, unit: LengthUnit): [number, number] | null {
  const way = ARROWS[event.key];
  const step = unit === "in" ? 3.175 : 2;
  return way ? [way[0] * step, way[1] * step] : null;
}

export function useDrag<T>(read: (event: PointerEvent) => T, take: (value: T) => void) {
  const held = shallowRef(null) as ShallowRef<T | null>;

  function start(event: PointerEvent): void {
    const grabbed = event.currentTarget as SVGElement;
    grabbed.setPointerCapture(event.pointerId);
    event.preventDefault();
    // What is dragged in a drawing does not move the drawing with it.
    event.stopPropagation();
    // Held fast, it would not take the focus by itself; and the keys move what was last taken hold of.
    grabbed.focus();
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

  /** What follows once it is begun, for `v-on`. */
  const on = { pointermove: move, pointerup: end, pointercancel: giveUp };

  return { held, start, on };
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
