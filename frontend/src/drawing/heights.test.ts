import { describe, expect, it } from "vitest";
import { thinned } from "./heights";
import { spread } from "./layout";

const marks = [1, 2, 3, 4, 5, 6].flatMap((layer) => [
  { name: `Layer ${layer}` },
  { name: `Filling ${layer}` },
]);

describe("the running heights", () => {
  it("are all told where there is room, and lose fillings first, then every other", () => {
    expect(thinned(marks, 12)).toEqual(marks);
    expect(thinned(marks, 8).map(({ name }) => name)).toEqual(
      [1, 2, 3, 4, 5, 6].map((layer) => `Layer ${layer}`),
    );
    const few = thinned(marks, 3).map(({ name }) => name);
    expect(few).toHaveLength(3);
    expect([few[0], few[2]]).toEqual(["Layer 1", "Layer 6"]);
  });
});

describe("labels of unlike heights", () => {
  it("stand clear of each other and within their bounds", () => {
    const high = [60, 20, 20, 20, 60];
    const placed = spread([100, 96, 104, 110, 120], high, 0, 400);
    const order = placed.map((_, at) => at).sort((a, b) => (placed[a] ?? 0) - (placed[b] ?? 0));
    order.slice(1).forEach((at, before) => {
      const other = order[before] ?? 0;
      const apart = (placed[at] ?? 0) - (placed[other] ?? 0);
      expect(apart).toBeGreaterThanOrEqual(((high[at] ?? 0) + (high[other] ?? 0)) / 2 - 1e-9);
    });
    placed.forEach((middle, at) => {
      expect(middle - (high[at] ?? 0) / 2).toBeGreaterThanOrEqual(0);
      expect(middle + (high[at] ?? 0) / 2).toBeLessThanOrEqual(400);
    });
  });
});
