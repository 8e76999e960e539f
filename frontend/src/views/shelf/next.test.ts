import { describe, expect, it } from "vitest";
import type { Card } from "@/api/types";
import { nextWords } from "./next";

const card = (
  title: string,
  due: string | null,
  attention: { subject: string; severity: string }[] = [],
): Card => ({ id: title, title, due, outside: { attention } }) as unknown as Card;
const NOW = new Date("2026-12-02T09:00:00");

describe("what is due next", () => {
  it("is the first due from now on, with what it needs", () => {
    const found = nextWords(
      [
        card("Late", "2026-12-05T11:00:00"),
        card("Gone", "2026-12-01T11:00:00"),
        card("Soon", "2026-12-03T10:00:00", [
          { subject: "stack", severity: "care" },
          { subject: "cover", severity: "trouble" },
        ]),
        card("Some day", null),
      ],
      NOW,
    );
    expect(found).toEqual({
      id: "Soon",
      title: "Soon",
      about: "cover",
      when: "tomorrow, 10:00",
      does: ". 2 things are to be settled first.",
    });
  });

  it.each([
    ["2026-12-02T17:00:00", "today, 17:00"],
    ["2026-12-05T11:00:00", "in 3 days, Saturday 5 December, 11:00"],
    ["2026-12-20T11:00:00", "Sunday 20 December, 11:00"],
  ])("is said by day: %s", (due, words) =>
    expect(nextWords([card("One", due)], NOW)).toMatchObject({
      when: words,
      about: "order",
      does: ". Nothing stands in its way.",
    }),
  );

  it.each([
    [true, ". What it needs is still being worked out."],
    [false, ". Open it to see what it needs."],
  ])("says nothing of an order that cannot be shown (on its way: %s)", (pending, does) => {
    const one = { ...card("One", "2026-12-03T10:00:00"), outside: null, pending };
    expect(nextWords([one], NOW)).toMatchObject({ does });
  });

  it("is not said where none is due", () => expect(nextWords([card("Some day", null)], NOW)).toBeNull());
});
