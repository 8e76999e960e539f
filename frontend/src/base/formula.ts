/** A rule's formula, which the core keeps as plain arithmetic, the way people write one. */

const PLAIN = new Set(["sum", "greatest", "set", "usual", "same"]);

/** `pi / 4 * d**2` as `π ÷ 4 × d²`; nothing for rules whose words say it all. */
export function writtenFormula(formula: string): string {
  if (PLAIN.has(formula)) return "";
  return formula
    .replaceAll("**2", "²")
    .replaceAll(" * ", " × ")
    .replaceAll(" / ", " ÷ ")
    .replaceAll(" - ", " − ")
    .replace(/\bpi\b/g, "π")
    .replace(/\bceil\(/g, "up(")
    .replace(/\bmax\(/g, "greater of (")
    .replaceAll("_", " ");
}

/** A tier as it is called in a working. */
export interface CalledTier {
  id: string;
  name: string;
}

/**
 * The name of a number put in: `tier 2` by the place of the tier and `tier_k7_crumb` by its id, as `Middle` and
 * `Middle, crumb coat`.
 */
export function spoken(name: string, tiers: readonly CalledTier[] = []): string {
  const place = /^tier (\d+)$/.exec(name);
  if (place) return tiers[Number(place[1]) - 1]?.name ?? name;
  const [, id, step] = /^tier_([a-z0-9]+)(?:_(\w+))?$/.exec(name) ?? [];
  if (id) {
    const tier = tiers.find((one) => one.id === id)?.name ?? "another tier";
    return step ? `${tier}, ${STEP_NAMES[step] ?? step}` : tier;
  }
  return STEP_NAMES[name] ?? name.replaceAll("_", " ");
}

const STEP_NAMES: Record<string, string> = {
  seal: "seal",
  dam: "dam",
  filling: "filling",
  crumb: "crumb coat",
  final: "final coat",
  cover: "cover",
};
