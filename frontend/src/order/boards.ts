/** What the shapes of boards are called. */
import type { Plan } from "@/api/types";
import { useHandbook } from "@/kitchen/handbook";

export type BoardShape = Plan["stack"]["base_shape"];

export function boardWords(shape: string | null | undefined): string {
  return (
    useHandbook()
      .words("boards")
      .find((one) => one.value === shape)?.words ?? "round"
  );
}
