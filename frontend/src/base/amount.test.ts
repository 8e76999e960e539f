import { describe, expect, it } from "vitest";
import { parseAmount, parseMinutes, parsePrice, parseTemperature, parseTimeOfDay, timeOfDay } from "./amount";
import { UnitError } from "./units";

describe("an amount", () => {
  it.each([
    ["250 g", 250, "g"],
    ["1.5 kg", 1500, "g"],
    ["0,5 l", 500, "ml"],
    ["12 pieces", 12, "each"],
    ["6x", 6, "each"],
    ["400", 400, "g"],
    ["1 lb", 453.592, "g"],
  ])("is read from %s", (text, amount, unit) => {
    expect(parseAmount(text, "g", false)).toEqual({ amount, unit });
  });
  it("without a unit is in the person's own, and of goods a count", () => {
    expect(parseAmount("2", "oz", false).amount).toBeCloseTo(56.7, 1);
    expect(parseAmount("10", "g", true)).toEqual({ amount: 10, unit: "each" });
  });
  it.each(["", "0 g", "-5 g", "some", "1,000 g", "3 buckets", "0 pieces"])("is not read from %j", (text) => {
    expect(() => parseAmount(text, "g", false)).toThrow(UnitError);
  });
  it("of goods is no weight", () => {
    expect(() => parseAmount("3 kg", "g", true)).toThrow("Type a count");
  });
});

describe("a price", () => {
  it.each([
    ["2.40", 2.4],
    ["2,4", 2.4],
    ["€ 3", 3],
    ["12", 12],
    ["eur 5", 5],
  ])("is read from %s", (text, value) => expect(parsePrice(text, "EUR")).toBe(value));
  it.each(["", "free", "-1", "1,000", "1e3", "200000", "£3", "GBP 3", "3 $"])(
    "is not read from %j",
    (text) => {
      expect(() => parsePrice(text, "EUR")).toThrow(UnitError);
    },
  );
  it("says what would be accepted, and in what currency", () => {
    expect(() => parsePrice("twenty", "EUR")).toThrow("Type a price, such as 2.40.");
    expect(() => parsePrice("gbp 3", "EUR")).toThrow("Prices here are in EUR.");
  });
});

describe("minutes", () => {
  it.each([
    ["90", 90],
    ["90 min", 90],
    ["2 h", 120],
    ["1.5h", 90],
    ["1,5 hours", 90],
    ["1h30", 90],
    ["1 h 30 min", 90],
    ["1:05", 65],
    ["0", 0],
  ])("reads %s", (text, minutes) => expect(parseMinutes(text)).toBe(minutes));

  it.each(["", "soon", "1h75", "h", "-3", "1:2:3", "0.3 min"])("asks for another where it is %j", (text) =>
    expect(() => parseMinutes(text)).toThrow("such as 90, 2 h or 1h30"),
  );
});

describe("a time of day", () => {
  it.each([
    ["8", 480],
    ["8:30", 510],
    ["17.15", 1035],
    ["5 pm", 1020],
    ["12am", 0],
    ["12:30 pm", 750],
    ["17h", 1020],
    ["24:00", 1440],
  ])("reads %s", (text, minutes) => expect(parseTimeOfDay(text)).toBe(minutes));

  it.each(["", "noonish", "25", "8:75", "13 pm", "24:01", "-1", "8:3"])(
    "asks for another where it is %j",
    (text) => expect(() => parseTimeOfDay(text)).toThrow("such as 8:00, 17.30 or 5 pm"),
  );

  it("reads back what it shows", () => {
    for (let minutes = 0; minutes <= 1440; minutes += 7)
      expect(parseTimeOfDay(timeOfDay(minutes))).toBe(minutes);
  });
});

describe("a temperature", () => {
  it.each([
    ["21", 21],
    ["21 °C", 21],
    ["4,5 c", 4.5],
    ["70 °F", 21.111],
    ["-4 F", -20],
    ["−18", -18],
  ])("is read from %s", (text, degrees) => expect(parseTemperature(text)).toBeCloseTo(degrees, 2));

  it.each(["", "cold", "21 K", "--3", "1 2"])("asks for another where it is %j", (text) =>
    expect(() => parseTemperature(text)).toThrow("such as 21 °C or 70 °F"),
  );
});
