/** The seams a cover of patches is given: which of them runs within what another parts off. */
import type { Tier } from "@/api/types";

export type Seam = Extract<Tier["cover"], { kind: "patches" }>["own_seams"][number];
export type Within = Seam["within"];

/** What lies beyond a seam and before it, in words. */
export function sidesOf(seam: Seam): { beyond: string; before: string } {
  if (seam.run === "level") return { beyond: "above", before: "below" };
  // An upright seam that is not turned runs from left to right, and beyond it is the back.
  const SIDES = ["behind", "left of", "in front of", "right of"] as const;
  const quarters = Math.round(seam.turn_deg / 90) + 4;
  const [beyond, before] = [0, 2].map((on) => SIDES[(quarters + on) % 4] ?? "behind") as [string, string];
  return { beyond, before };
}

/** Where a seam runs, as one of the ways it may. */
export function wayOf(within: Within): string {
  return within ? `${within.side} ${within.seam}` : "all";
}

/** Where a seam may run: all the way, or on one side of any before it. */
export function waysOf(
  seams: readonly Seam[],
  at: number,
): { value: string; words: string; within: Within }[] {
  const sided = seams.slice(0, at).flatMap((seam, index) =>
    (["beyond", "before"] as const).map((side) => ({
      words: `${sidesOf(seam)[side]} seam ${index + 1}`,
      within: { seam: index + 1, side },
    })),
  );
  return [{ words: "all the way", within: null }, ...sided].map((way) => ({
    ...way,
    value: wayOf(way.within),
  }));
}

/** The seams without one: what ran within it runs where that one did. */
export function withoutSeam(seams: readonly Seam[], at: number): Seam[] {
  const number = at + 1;
  return seams.toSpliced(at, 1).map((seam) => {
    const within = seam.within?.seam === number ? (seams[at]?.within ?? null) : seam.within;
    return {
      ...seam,
      within: within && within.seam > number ? { ...within, seam: within.seam - 1 } : within,
    };
  });
}
