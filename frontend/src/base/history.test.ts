import { describe, expect, it } from "vitest";
import { History } from "./history";

describe("history", () => {
  it("undoes and redoes in order", () => {
    const history = new History<string>();
    history.remember("a");
    history.remember("b");
    expect(history.undo("c")).toBe("b");
    expect(history.undo("b")).toBe("a");
    expect(history.undo("a")).toBeUndefined();
    expect(history.redo("a")).toBe("b");
    expect(history.redo("b")).toBe("c");
    expect(history.canRedo).toBe(false);
  });

  it("forgets what was undone once something new is done", () => {
    const history = new History<string>();
    history.remember("a");
    history.undo("b");
    history.remember("a");
    expect(history.canRedo).toBe(false);
    expect(history.undo("z")).toBe("a");
  });

  it("keeps no more than its depth", () => {
    const history = new History<number>(3);
    for (let step = 0; step < 10; step += 1) history.remember(step);
    expect([history.undo(10), history.undo(9), history.undo(8), history.undo(7)]).toEqual([
      9,
      8,
      7,
      undefined,
    ]);
  });

  it("can redo a step back to a state from outside", () => {
    const history = new History<string>();
    history.stepBack("now");
    expect(history.redo("older")).toBe("now");
  });
});
