/** Looking closer at a drawing: by wheel, by two fingers, by keys; moved by dragging once it is larger than its frame. */
import { computed, reactive, ref, type Ref } from "vue";
import type { Sheet } from "./layout";

export const MOST = 8;
/** So much closer a key or a press of a button goes, and a pixel of the wheel. */
export const STEP = 1.5;
const PER_PIXEL = 1.0016;
/** A press that moves no farther is a press, and moves nothing. */
const STILL = 4;

export interface View {
  zoom: number;
  /** How far the drawing is moved, in pixels. */
  dx: number;
  dy: number;
}

/** The sheet as it is looked at. */
export function seenBy(sheet: Sheet, { zoom, dx, dy }: View): Sheet {
  return { scale: sheet.scale * zoom, axis: sheet.axis * zoom + dx, table: sheet.table * zoom + dy };
}

/** The view so much closer, in which what was at a place stays there; never so that the frame shows nothing of it. */
export function closer(
  view: View,
  by: number,
  at: readonly [number, number],
  size: readonly [number, number],
): View {
  const zoom = Math.min(MOST, Math.max(1, view.zoom * by));
  const share = zoom / view.zoom;
  return within({ zoom, dx: at[0] - (at[0] - view.dx) * share, dy: at[1] - (at[1] - view.dy) * share }, size);
}

/** A view whose frame is filled by the drawing. */
export function within({ zoom, dx, dy }: View, [wide, high]: readonly [number, number]): View {
  const held = (by: number, room: number): number => Math.min(0, Math.max(room * (1 - zoom), by));
  return { zoom, dx: held(dx, wide), dy: held(dy, high) };
}

type Place = readonly [number, number];

export function useView(
  frame: Ref<HTMLElement | undefined>,
  size: { width: Ref<number>; height: Ref<number> },
) {
  const view = ref<View>({ zoom: 1, dx: 0, dy: 0 });
  const fingers = reactive(new Map<number, Place>());
  let moved = false;
  let grabbed: Place | null = null;

  const room = (): Place => [size.width.value, size.height.value];
  const placeOf = (event: MouseEvent): Place => {
    const box = frame.value?.getBoundingClientRect();
    return [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
  };
  function go(by: number, at: Place = [size.width.value / 2, size.height.value / 2]): void {
    view.value = closer(view.value, by, at, room());
  }
  function fit(): void {
    view.value = { zoom: 1, dx: 0, dy: 0 };
  }
  function move(right: number, down: number): void {
    const { zoom, dx, dy } = view.value;
    view.value = within({ zoom, dx: dx + right, dy: dy + down }, room());
  }

  function wheel(event: WheelEvent): void {
    // Where the page itself scrolls, the wheel is the page's, unless it is a pinch.
    const page = document.documentElement;
    if (!event.ctrlKey && page.scrollHeight > page.clientHeight + 1) return;
    event.preventDefault();
    go(PER_PIXEL ** -(event.deltaY * (event.ctrlKey ? 4 : 1)), placeOf(event));
  }
  function down(event: PointerEvent): void {
    fingers.set(event.pointerId, placeOf(event));
    grabbed = placeOf(event);
    moved = false;
  }
  function drag(event: PointerEvent): void {
    const before = fingers.get(event.pointerId);
    if (!before) return;
    const now = placeOf(event);
    const others = [...fingers].filter(([id]) => id !== event.pointerId).map(([, place]) => place);
    fingers.set(event.pointerId, now);
    const [other] = others;
    if (other) {
      const apart = (one: Place): number => Math.max(12, Math.hypot(one[0] - other[0], one[1] - other[1]));
      const middle: Place = [(now[0] + other[0]) / 2, (now[1] + other[1]) / 2];
      move((now[0] - before[0]) / 2, (now[1] - before[1]) / 2);
      go(apart(now) / apart(before), middle);
      moved = true;
    } else if (view.value.zoom > 1 && grabbed) {
      if (!moved && Math.hypot(now[0] - grabbed[0], now[1] - grabbed[1]) < STILL) return;
      moved = true;
      move(now[0] - before[0], now[1] - before[1]);
    }
  }
  function up(event: PointerEvent): void {
    fingers.delete(event.pointerId);
    // The press that ends a drag follows at once, if there is one.
    setTimeout(() => (moved = false));
  }
  /** What ends a drag is not a press on what lies below it. */
  function click(event: MouseEvent): void {
    if (moved) event.stopPropagation();
    moved = false;
  }
  function key(event: KeyboardEvent): void {
    // What is typed into a field of the drawing is the field's.
    if (event.ctrlKey || event.metaKey || event.altKey || (event.target as Element).matches("input, select"))
      return;
    const by = { "+": STEP, "=": STEP, "-": 1 / STEP }[event.key];
    if (by) go(by);
    else if (event.key === "0") fit();
    else return;
    event.preventDefault();
  }

  return {
    view,
    looksCloser: computed(() => view.value.zoom > 1.001),
    go,
    fit,
    /** What the frame of the drawing hears, for `v-bind`. */
    heard: {
      onWheel: wheel,
      onPointerdown: down,
      onPointermove: drag,
      onPointerup: up,
      onPointercancel: up,
      onPointerleave: up,
      onClickCapture: click,
      onKeydown: key,
    },
  };
}
