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

/** The name of a number put in: `tier_2_crumb` as `Middle, crumb coat`, by the tiers' own names. */
export function spoken(name: string, tiers: readonly string[] = []): string {
  const step = /^tier[_ ](\d+)(?:_(\w+))?$/.exec(name);
  if (step) {
    const tier = tiers[Number(step[1]) - 1] ?? `tier ${step[1]}`;
    return step[2] ? `${tier}, ${STEP_NAMES[step[2]] ?? step[2]}` : tier;
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
