/** Light, dark and roundness in flat ink. */

/** Whether ink would be lost on this colour: relative luminance (sRGB weights) below a third. */
export function isDark(hex: string): boolean {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map(
    (at) => Number.parseInt(hex.slice(at, at + 2), 16) / 255,
  );
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue < 0.36;
}

/** Where upright engraved lines stand on a drum of this half-width, closer toward its edge, as they would look. */
export function engraving(half: number, count = 11): number[] {
  const turn = Math.PI / 2 / count;
  return Array.from({ length: 6 }, (_, index) => half * Math.sin(Math.PI / 2 - turn * (index + 0.9)));
}
