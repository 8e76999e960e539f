/** A tier in words: what lies between its layers, what its coats and cover are and do; and all of it for the ear. */
import { useHandbook } from "@/kitchen/handbook";
import { useSettings } from "@/kitchen/settings";
import type { Plan, Tier } from "@/api/types";
import { kindAt } from "./kinds";

export function useDescribed() {
  const handbook = useHandbook();
  const settings = useSettings();

  function layersWords(tier: Tier, count: number): string {
    if (count === 1) return "One layer, no filling";
    return `${count} layers, ${handbook.mediumName(tier.filling.medium).toLowerCase()} between`;
  }

  /** What is outermost of its coats. */
  function outermost(tier: Tier): string {
    return handbook.mediumName("medium" in tier.final ? tier.final.medium : tier.crumb.medium);
  }

  function coatsWords(tier: Tier): string {
    const does = kindAt(tier, "final")?.does;
    return does ? `${outermost(tier)} ${does}` : `${outermost(tier)}, crumb coat only`;
  }

  function coverWords(tier: Tier): string {
    const beneath = outermost(tier).toLowerCase();
    const does = kindAt(tier, "cover")?.does;
    if (!does) return `Nothing over the ${beneath}`;
    const what = "medium" in tier.cover ? handbook.mediumName(tier.cover.medium) : "";
    const words = `${what} ${does} over ${beneath}`.trim();
    return (words[0]?.toUpperCase() ?? "") + words.slice(1);
  }

  /** A few sentences a tier, from the bottom up. */
  function described(tiers: readonly Tier[], plan: Plan): string[] {
    return tiers.map((tier, index) => {
      const planned = plan.tiers[index];
      if (!planned) return "";
      const across = settings.words({ value: tier.tin_diameter_mm, unit: "mm" });
      const shape = kindAt(tier, "shape")?.words.toLowerCase() ?? "carved";
      const { bottom, top } = planned.stack;
      const said = [
        `${planned.name}: ${across} ${shape}`,
        layersWords(tier, planned.layers.count.value),
        coatsWords(tier),
        coverWords(tier),
        `From ${settings.words(bottom)} to ${settings.words(top)} above the table`,
      ];
      return `${said.join(". ")}.`;
    });
  }

  return { layersWords, coatsWords, coverWords, outermost, described };
}
