import { describe, expect, it } from "vitest";
import { bowlLevels, HIGH } from "./bowlShape";

describe("the levels in a bowl", () => {
  it("take up the room of their shares, as a paraboloid holds it", () => {
    const levels = bowlLevels([
      { name: "stays", share: 70 },
      { name: "lost", share: 10 },
      { name: "reserve", share: 20 },
    ]);
    // The room of a paraboloid to a height, by adding up thin discs of radius √z.
    const room = (from: number, to: number): number => {
      let sum = 0;
      for (let step = 0; step < 4000; step += 1) sum += from + ((to - from) * (step + 0.5)) / 4000;
      return (sum * (to - from)) / 4000;
    };
    const whole = room(0, HIGH);
    expect(levels.map(({ from, to }) => Math.round((100 * room(from, to)) / whole))).toEqual([70, 10, 20]);
    expect(levels.at(-1)?.to).toBeCloseTo(HIGH, 9);
  });
});
