/** An amount as people write it on a list: by weight, by volume, or by the piece. */
import {
  decimal,
  type Measure,
  parseWeight,
  type Rounding,
  roundTo,
  UnitError,
  type WeightUnit,
} from "./units";

export interface Amount {
  amount: number;
  unit: "g" | "ml" | "each";
}

const VOLUMES: Record<string, number> = { ml: 1, cl: 10, l: 1000, litre: 1000, litres: 1000 };
const PIECES = new Set(["each", "piece", "pieces", "pcs", "x"]);

/** The amount in a text; a number without a unit is a weight, or of goods a count. Throws UnitError. */
export function parseAmount(text: string, weight: WeightUnit, counted: boolean): Amount {
  const wanted = counted
    ? "Type a count, such as 10 pieces."
    : "Type an amount, such as 250 g, 500 ml or 12 pieces.";
  const match = /^\s*(\d+(?:[.,]\d+)?)\s*([A-Za-z]*)\.?\s*$/.exec(text);
  const word = match?.[2]?.toLowerCase() ?? "";
  if (match && /^\d+,\d{3}$/.test(match[1] ?? ""))
    throw new UnitError("Leave out the comma in thousands: 1000, not 1,000.");
  const number = Number((match?.[1] ?? "").replace(",", "."));
  if (match && (PIECES.has(word) || (counted && !word))) {
    if (number <= 0) throw new UnitError(wanted);
    return { amount: number, unit: "each" };
  }
  const times = VOLUMES[word];
  if (match && times) {
    if (number <= 0) throw new UnitError(wanted);
    return { amount: number * times, unit: "ml" };
  }
  if (counted) throw new UnitError(wanted);
  try {
    const grams = parseWeight(text, weight);
    if (grams <= 0) throw new UnitError(wanted);
    return { amount: Math.round(grams * 1000) / 1000, unit: "g" };
  } catch (error) {
    throw error instanceof UnitError && text.trim() && !/[A-Za-z]/.test(text) ? error : new UnitError(wanted);
  }
}

const SIGNS: Record<string, string> = { "€": "EUR", "£": "GBP", $: "USD" };

/** A sum of money as it was typed, with a point or a comma, in the kitchen's own currency. Throws UnitError. */
export function parsePrice(text: string, currency: string): number {
  const [, before = "", plain = "", after = ""] =
    /^\s*([€$£]|[A-Za-z]{3}(?=\s*\d))?\s*(.*?)\s*([€$£]|(?<=\d\s*)[A-Za-z]{3})?\s*$/.exec(text) ?? [];
  const named = (before || after).toUpperCase();
  const dollars = named === "$" && /D$/.test(currency);
  if (named && !dollars && (SIGNS[named] ?? named) !== currency)
    throw new UnitError(`Prices here are in ${currency}. Type one such as 2.40.`);
  if (/^\d+,\d{3}$/.test(plain)) throw new UnitError("Leave out the comma in thousands: 1000, not 1,000.");
  if (!/^\d+(?:[.,]\d{1,4})?$/.test(plain)) throw new UnitError("Type a price, such as 2.40.");
  const value = Number(plain.replace(",", "."));
  if (value > 100000) throw new UnitError("Type a price of 100000 or less.");
  return value;
}

/** Minutes of what was typed: a number alone is minutes; “2 h”, “1h30”, “1 h 30 min” and “1:30” are hours. Throws UnitError. */
export function parseMinutes(text: string): number {
  const plain = text.trim().toLowerCase();
  const number = String.raw`(\d+(?:[.,]\d+)?)`;
  const hours = "h|hr|hrs|hour|hours";
  const minutes = "m|min|mins|minute|minutes";
  const alone = new RegExp(`^${number}\\s*(${hours}|${minutes})?\\.?$`).exec(plain);
  const both = new RegExp(`^(\\d+)\\s*(?:${hours}|:)\\s*(\\d{1,2})\\s*(?:${minutes})?\\.?$`).exec(plain);
  const value = (one: string | undefined) => Number((one ?? "").replace(",", "."));
  if (both && value(both[2]) < 60) return value(both[1]) * 60 + value(both[2]);
  if (!alone) throw new UnitError("Type minutes or hours, such as 90, 2 h or 1h30.");
  const found = value(alone[1]) * (alone[2]?.startsWith("h") ? 60 : 1);
  if (!Number.isInteger(found)) throw new UnitError("Type it in whole minutes, such as 90, 2 h or 1h30.");
  return found;
}

/** Degrees Celsius of what was typed: “21”, “21 °C”, “70 F”, “-18”. Throws UnitError. */
export function parseTemperature(text: string): number {
  const match = /^([-−]?)\s*(\d+(?:[.,]\d+)?)\s*°?\s*([cf]?)\.?$/i.exec(text.trim());
  if (!match) throw new UnitError("Type a temperature, such as 21 °C or 70 °F.");
  const degrees = Number((match[2] ?? "").replace(",", ".")) * (match[1] ? -1 : 1);
  return match[3]?.toLowerCase() === "f" ? (degrees - 32) / 1.8 : degrees;
}

/** From so many minutes on people read hours. */
const HOURS_FROM_MIN = 120;

/** A length of time as people read it: “45 min”, “8 h 31 min”. */
export function minutesMeasure(minutes: number, rounding: Rounding = "nearest"): Measure {
  const whole = Math.round(roundTo(minutes, 1, rounding));
  if (whole < HOURS_FROM_MIN) return { number: decimal(whole, 0), unit: "min" };
  const hours = Math.floor(whole / 60);
  return whole % 60
    ? { number: `${hours} h ${whole % 60}`, unit: "min" }
    : { number: String(hours), unit: "h" };
}

/** Minutes after midnight of a time of day: “8”, “8:30”, “17.15”, “5 pm”. Throws UnitError. */
export function parseTimeOfDay(text: string): number {
  const match = /^(\d{1,2})(?:[:.h](\d{2}))?\s*(h|am|pm|a\.m\.|p\.m\.)?$/.exec(text.trim().toLowerCase());
  const [, hour = "", minute = "0", half = ""] = match ?? [];
  const letter = half === "h" ? "" : half.charAt(0);
  const hours = Number(hour);
  const right = match && Number(minute) < 60 && (letter ? hours >= 1 && hours <= 12 : hours <= 24);
  const found = ((letter ? hours % 12 : hours) + (letter === "p" ? 12 : 0)) * 60 + Number(minute);
  if (!right || found > 24 * 60) throw new UnitError("Type a time of day, such as 8:00, 17.30 or 5 pm.");
  return found;
}

/** A time of day as people read it, of its minutes after midnight: “8:00”. */
export function timeOfDay(minutes: number): string {
  const whole = Math.round(minutes);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}
