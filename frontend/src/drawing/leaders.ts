/** The lines of what is written beside the half-section: a bracket or a dot, and a leader to the words. */
import type { Annotation } from "./annotations";
import { type Sheet, xAt, yAt } from "./layout";

export interface Leader {
  bracket: string;
  leader: string;
  dot: [number, number] | null;
}

/** So far before its words a leader bends level, and so far before them it ends. */
const BEND = 18;
const END = 4;

/** A height is bracketed right of its box, a point dotted in it; the words stand at a column, so far down. */
export function leaderOf(
  { box, mark, at, step }: Annotation,
  sheet: Sheet,
  down: number,
  column: number,
): Leader {
  const middle = yAt(sheet, (box.z0 + box.z1) / 2);
  if (mark === "point") {
    const dot: [number, number] = [xAt(sheet, box.x0 + (box.x1 - box.x0) * (at ?? 0.5)), middle];
    return { bracket: "", leader: `M${dot[0]} ${dot[1]}L${column - BEND} ${down}H${column - END}`, dot };
  }
  const [low, high] = [yAt(sheet, box.z0), yAt(sheet, box.z1)];
  const line = xAt(sheet, box.x1) + 11 + 10 * (step ?? 0);
  return {
    bracket: `M${line - 5} ${high}H${line + 5}M${line} ${high}V${low}M${line - 5} ${low}H${line + 5}`,
    leader: `M${line} ${middle}L${Math.max(line, column - BEND)} ${down}H${column - END}`,
    dot: null,
  };
}
