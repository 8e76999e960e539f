/** What the shapes of boards are called. */
import type { Plan } from "@/api/types";

export type BoardShape = Plan["stack"]["base_shape"];

export const BOARD_SHAPES: readonly { value: BoardShape; words: string }[] = [
  { value: "round", words: "round" },
  { value: "square", words: "square" },
  { value: "rectangle", words: "rectangle" },
  { value: "oval", words: "oval" },
  { value: "outline", words: "cut to the outline" },
];

export function boardWords(shape: string | null | undefined): string {
  return BOARD_SHAPES.find((one) => one.value === shape)?.words ?? "round";
}
