import { describe, expect, it } from "vitest";
import { bounded, FIRST } from "./look";

describe("where a body in the round is looked at from", () => {
  it("is never from below, nor from straight above, where there is no telling left from right", () => {
    expect(bounded({ ...FIRST, tip: -1 }).tip).toBeGreaterThan(0);
    expect(bounded({ ...FIRST, tip: 9 }).tip).toBeLessThan(Math.PI / 2);
  });

  it("is neither within it nor out of sight of it", () => {
    expect(bounded({ ...FIRST, far: 0.001 }).far).toBeGreaterThan(0.2);
    expect(bounded({ ...FIRST, far: 99 }).far).toBeLessThan(5);
  });

  it("is otherwise as it is said", () => {
    expect(bounded({ turn: 12, tip: 0.7, far: 1.3 })).toEqual({ turn: 12, tip: 0.7, far: 1.3 });
  });
});
