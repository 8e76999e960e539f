/** The drawing in words, tier by tier, for whoever hears it instead of seeing it. */
import { useHandbook } from "@/kitchen/handbook";
import { useSettings } from "@/kitchen/settings";
import type { Plan, Tier } from "@/api/types";
import { kindAt } from "./kinds";

/** A sentence a tier, from the bottom up. */
export function useDescribed() {
  const handbook = useHandbook();
  const settings = useSettings();

  function described(tiers: readonly Tier[], plan: Plan): string[] {
    return tiers.map((tier, index) => {
      const planned = plan.tiers[index];
      if (!planned) return "";
      const across = settings.words({ value: tier.tin_diameter_mm, unit: "mm" });
      const shape = kindAt(tier, "shape")?.words.toLowerCase() ?? "carved";
      const count = planned.layers.count.value;
      const filling = handbook.mediumName(tier.filling.medium).toLowerCase();
      const stands = planned.stack;
      const said = [
        `${across} ${shape}`,
        count === 1 ? "one layer" : `${count} layers with ${filling} between`,
        coat(tier),
        cover(tier),
        `from ${settings.words(stands.bottom)} to ${settings.words(stands.top)} above the table`,
      ];
      return `${planned.name}: ${said.filter(Boolean).join(", ")}.`;
    });
  }

  function coat(tier: Tier): string {
    if (!("medium" in tier.final)) return "";
    return `coated in ${handbook.mediumName(tier.final.medium).toLowerCase()}`;
  }

  function cover(tier: Tier): string {
    const does = kindAt(tier, "cover")?.does;
    if (!does) return "not covered";
    const what = "medium" in tier.cover ? handbook.mediumName(tier.cover.medium).toLowerCase() : "";
    return `${what} ${does}`.trim();
  }

  return { described };
}
