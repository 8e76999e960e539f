/** The shapes a tin can have, as silhouettes to choose from, and what each asks for. */
import type { Tier } from "@/api/types";

export type Shape = Tier["shape"];
export type ShapeKind = Shape["kind"];

export const SHAPES: readonly { value: ShapeKind; words: string; icon: string }[] = [
  { value: "round", words: "round", icon: "M12 3a9 9 0 1 1 0 18a9 9 0 1 1 0-18z" },
  { value: "square", words: "square", icon: "M4 4h16v16h-16z" },
  { value: "rectangle", words: "rectangle", icon: "M6 2h12v20h-12z" },
  { value: "polygon", words: "polygon", icon: "M20 7.4v9.2L12 21.2l-8-4.6V7.4l8-4.6z" },
  { value: "oval", words: "oval", icon: "M12 2c4 0 6.6 4.5 6.6 10S16 22 12 22s-6.6-4.5-6.6-10S8 2 12 2z" },
  { value: "heart", words: "heart", icon: "M12 22L3.6 13.6a5.9 5.9 0 0 1 8.4-8.4a5.9 5.9 0 0 1 8.4 8.4z" },
  {
    value: "petal",
    words: "petal",
    icon: "M9 4.8a3 3 0 0 1 6 0a3 3 0 0 1 4.2 4.2a3 3 0 0 1 0 6a3 3 0 0 1-4.2 4.2a3 3 0 0 1-6 0a3 3 0 0 1-4.2-4.2a3 3 0 0 1 0-6a3 3 0 0 1 4.2-4.2z",
  },
  { value: "free", words: "an outline of your own", icon: "M5 20l-2-9 5-7 6 3 7-2-1 9-5 7z" },
];

/** The outline a free shape begins with, until a drawing is read: a rounded house of its own proportions. */
const FREE_START: [number, number][] = [
  [0, 0],
  [200, 0],
  [200, 120],
  [100, 190],
  [0, 120],
];

/** A tier's new shape, keeping the length and corners it already had where the new one has them too. */
export function reshaped(tier: Tier, kind: ShapeKind): Shape {
  const before = tier.shape;
  const corner_mm = "corner_mm" in before ? before.corner_mm : 0;
  const longer = Math.round(tier.tin_diameter_mm * 13) / 10;
  const length_mm = "length_mm" in before ? before.length_mm : longer;
  switch (kind) {
    case "square":
      return { kind, corner_mm };
    case "rectangle":
      return { kind, length_mm, corner_mm };
    case "polygon":
      return { kind, sides: 6, corner_mm };
    case "oval":
      return { kind, length_mm };
    case "free":
      return { kind, points_mm: before.kind === "free" ? before.points_mm : FREE_START };
    case "petal":
      return { kind, petals: 8 };
    default:
      return { kind };
  }
}
