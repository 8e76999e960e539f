import { describe, expect, it } from "vitest";
import { useTyped } from "./typed";

const event = (value: string): Event => ({ target: { value } }) as unknown as Event;

describe("what is typed into a field", () => {
  it("is taken once it is finished, and the field shows what is kept again", () => {
    const taken: string[] = [];
    const field = useTyped((text) => {
      taken.push(text);
      return "";
    });
    void field.finish();
    field.begin("6");
    expect(field.typed.value).toBe("6");
    field.type(event("7 1/2"));
    void field.finish();
    void field.finish();
    expect(taken).toEqual(["7 1/2"]);
    expect(field.typed.value).toBeNull();
  });

  it("stays with what would be taken where it cannot be, until it is mended or given up", () => {
    const field = useTyped((text) => (text === "six" ? "Type a number." : ""));
    field.type(event("six"));
    void field.finish();
    expect([field.typed.value, field.wrong.value]).toEqual(["six", "Type a number."]);
    field.begin("8");
    expect(field.typed.value).toBe("six");
    field.type(event("6"));
    void field.finish();
    expect([field.typed.value, field.wrong.value]).toEqual([null, ""]);
    field.type(event("six"));
    void field.finish();
    field.giveUp();
    expect([field.typed.value, field.wrong.value]).toEqual([null, ""]);
  });

  it("is not lost where it is typed on while what came before is being taken", async () => {
    let answer: (said: string) => void = () => undefined;
    const field = useTyped(() => new Promise((resolve) => (answer = resolve)));
    field.type(event("flour"));
    const finished = field.finish();
    field.type(event("flour, sieved"));
    answer("");
    await finished;
    expect(field.typed.value).toBe("flour, sieved");
  });
});
