/** The shape of a bowl in section, a paraboloid: what is in it to a height is as the square of that height. */

export const WIDE = 120;
export const HIGH = 52;
/** The bowl stands so far above what is in it. */
export const RIM = 3;

/** The wall of the bowl, from its left rim to its right one. */
export function inside(): string {
  const at = (x: number): string =>
    `${x} ${(HIGH * (1 - (2 * x) ** 2 / WIDE ** 2) - RIM + (RIM * (2 * x) ** 2) / WIDE ** 2).toFixed(2)}`;
  const steps = Array.from({ length: 25 }, (_, index) => at(-WIDE / 2 + (index * WIDE) / 24));
  return `M${steps.join("L")}`;
}

export interface Level {
  name: string;
  from: number;
  to: number;
  lit: boolean;
}

/** Between which heights each part lies, so that the room it takes in the bowl is its share of the mix. */
export function bowlLevels(parts: readonly { name: string; share: number; lit?: boolean }[]): Level[] {
  const whole = parts.reduce((sum, part) => sum + part.share, 0) || 1;
  let taken = 0;
  return parts.map(({ name, share, lit }) => {
    const from = HIGH * Math.sqrt(taken / whole);
    taken += share;
    return { name, from, to: HIGH * Math.sqrt(taken / whole), lit: lit ?? false };
  });
}
