import { describe, expect, it } from "vitest";
import { closer, MOST, seenBy, within } from "./view";

const SIZE = [800, 600] as const;
const SHEET = { scale: 1.5, axis: 400, table: 560 };

describe("looking closer", () => {
  it("leaves what is under the pointer where it is", () => {
    const at = [300, 200] as const;
    const view = closer({ zoom: 1, dx: 0, dy: 0 }, 2, at, SIZE);
    const before = (at[0] - SHEET.axis) / SHEET.scale;
    const sheet = seenBy(SHEET, view);
    expect((at[0] - sheet.axis) / sheet.scale).toBeCloseTo(before, 9);
    expect(view.zoom).toBe(2);
  });

  it("never goes farther than all of it, nor closer than its most, and never leaves the frame empty", () => {
    expect(closer({ zoom: 1, dx: 0, dy: 0 }, 0.1, [10, 10], SIZE)).toEqual({ zoom: 1, dx: 0, dy: 0 });
    expect(closer({ zoom: 4, dx: 0, dy: 0 }, 100, [0, 0], SIZE).zoom).toBe(MOST);
    const far = within({ zoom: 2, dx: -5000, dy: 400 }, SIZE);
    expect(far).toEqual({ zoom: 2, dx: -800, dy: 0 });
  });
});
