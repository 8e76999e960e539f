/** A bowl as a vessel to scale: what each step takes out of it from the top down, then what comes back and the reserve. */
import type { Bowl, Figure, Plan } from "@/api/types";

export interface Level {
  key: string;
  words: string;
  /** The same in fewer letters, for a narrow vessel. */
  short: string;
  kind: "step" | "back" | "reserve" | "rounding";
  grams: number;
  /** How much of it goes to bowl, bag and knife. */
  lost: number;
  figure: Figure;
  /** The tier it belongs to, 0 for what is of no tier. */
  tier: number;
}

const STEP_WORDS: Record<string, string> = {
  syrup: "syrup",
  seal: "seal",
  dam: "dam",
  filling: "filling",
  refill: "what fills an opening",
  crumb: "crumb coat",
  final: "final coat",
  cover: "cover",
  on_top: "piece on top",
  border: "border",
  region: "piped region",
  glue: "dab under it",
  slide: "on the board inside",
  joint: "bead at the joint",
};

const SHORT_WORDS: Record<string, string> = {
  refill: "opening",
  region: "piped",
  crumb: "crumb",
  final: "final",
  on_top: "on top",
  glue: "dab",
  slide: "board",
  joint: "bead",
};

/** A step of the work as people call it. */
export function stepWords(step: string): string {
  const words = STEP_WORDS[step] ?? step.replaceAll("_", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
}

export function levelsOf(bowl: Bowl, plan: Plan): Level[] {
  const steps = Object.entries(bowl.steps).map(([key, use]): Level => {
    const tier = plan.tiers.length > 1 ? `, ${plan.tiers[use.tier - 1]?.name}` : "";
    return {
      key,
      words: `${STEP_WORDS[use.step] ?? use.step}${tier}`,
      short: `${SHORT_WORDS[use.step] ?? STEP_WORDS[use.step] ?? use.step}${tier}`,
      kind: "step",
      grams: use.stays.value + use.lost.value,
      lost: use.lost.value,
      figure: use.stays,
      tier: use.tier,
    };
  });
  const rest = bowl.mix.value - bowl.need.value - bowl.reserve.value;
  const parts: Level[] = [
    ...steps,
    {
      key: "back",
      words: "in hand, comes back",
      short: "comes back",
      kind: "back",
      grams: bowl.comes_back.value,
      lost: 0,
      figure: bowl.comes_back,
      tier: 0,
    },
    {
      key: "reserve",
      words: "reserve",
      short: "reserve",
      kind: "reserve",
      grams: bowl.reserve.value,
      lost: 0,
      figure: bowl.reserve,
      tier: 0,
    },
    {
      key: "rounding",
      words: "to weigh well",
      short: "rounded",
      kind: "rounding",
      grams: rest,
      lost: 0,
      figure: bowl.mix,
      tier: 0,
    },
  ];
  return parts.filter((level) => level.grams > 0.5);
}
