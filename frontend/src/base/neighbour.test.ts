import { describe, expect, it } from "vitest";
import { neighbour } from "./neighbour";

describe("the neighbour in a list", () => {
  it.each([
    [["a", "b", "c"], "a", 1, "b"],
    [["a", "b", "c"], "c", 1, "c"],
    [["a", "b", "c"], "a", -1, "a"],
    [["a", "b", "c"], "gone", 1, "a"],
    [["a", "b", "c"], "", -1, "c"],
    [[], "", 1, ""],
  ])("of %j from %s by %i is %s", (ids, id, by, found) => {
    expect(neighbour(ids, id, by)).toBe(found);
  });
});
