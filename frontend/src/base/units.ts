/**
 * What people type and read, to and from millimetres and grams: the screen's edge of the metric inside.
 * The same functions stand in the core in Python; both are held to one table of cases, tests/units.json.
 */

export const LENGTH_UNITS = ["in", "cm", "mm"] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];
export type WeightUnit = "g" | "oz";
export type Rounding = "up" | "down" | "nearest";

/** A number as people read it, apart from its unit. */
export interface Measure {
  number: string;
  unit: string;
}

export const MM_PER_INCH = 25.4;
const G_PER_POUND = 453.59237;
export const G_PER_OUNCE = G_PER_POUND / 16;

const LENGTHS: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
  "″": MM_PER_INCH,
  "”": MM_PER_INCH,
  ft: 12 * MM_PER_INCH,
};
const WEIGHTS: Record<string, number> = {
  g: 1,
  gram: 1,
  grams: 1,
  kg: 1000,
  oz: G_PER_OUNCE,
  ounce: G_PER_OUNCE,
  ounces: G_PER_OUNCE,
  lb: G_PER_POUND,
  lbs: G_PER_POUND,
  pound: G_PER_POUND,
  pounds: G_PER_POUND,
};
const VULGAR: Record<string, string> = {
  "½": "1/2",
  "⅓": "1/3",
  "⅔": "2/3",
  "¼": "1/4",
  "¾": "3/4",
  "⅕": "1/5",
  "⅖": "2/5",
  "⅗": "3/5",
  "⅘": "4/5",
  "⅙": "1/6",
  "⅚": "5/6",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
};
const NUMBER = String.raw`(?:\d+[\s-]+\d+\s*\/\s*\d+|\d+\s*\/\s*\d+|\d+(?:[.,]\d+)?|[.,]\d+)`;

/** Text that is not a measure; its message says what would be. */
export class UnitError extends Error {}

/** Millimetres from what a person typed; a number without a unit is in `unit`. Throws UnitError. */
export function parseLength(text: string, unit: LengthUnit, signed = false): number {
  const other = /^\s*[-−]/.exec(text);
  if (signed && other) return -parseLength(text.slice(other[0].length), unit);
  return parse(text, LENGTHS, unit, "a length, such as 8 1/4 in, 21 cm or 210 mm");
}

/** Grams from what a person typed; a number without a unit is in `unit`. Throws UnitError. */
export function parseWeight(text: string, unit: WeightUnit): number {
  return parse(text, WEIGHTS, unit, "a weight, such as 250 g, 1.5 kg or 2 lb 4 oz");
}

function parse(text: string, factors: Record<string, number>, unit: string, wanted: string): number {
  let plain = text.trim().replace(/\.+$/, "");
  for (const [vulgar, fraction] of Object.entries(VULGAR)) plain = plain.replaceAll(vulgar, ` ${fraction}`);
  plain = plain.trim();
  if (/^[-−]/.test(plain)) throw new UnitError(`This cannot be less than nothing. Type ${wanted}.`);
  const term = new RegExp(String.raw`\s*(${NUMBER})\s*([A-Za-z"″”]*)`, "y");
  let value = 0;
  let terms = 0;
  let converted = false;
  while (term.lastIndex < plain.length) {
    const match = term.exec(plain);
    const name = match?.[2]?.toLowerCase() ?? "";
    const unknown = name !== "" && !Object.hasOwn(factors, name);
    if (!match || unknown || (name === "" && (terms > 0 || term.lastIndex < plain.length))) {
      throw new UnitError(`Type ${wanted}.`);
    }
    value += numberFrom(match[1] ?? "") * (factors[name || unit] ?? 1);
    converted ||= factors[name || unit] !== 1;
    terms += 1;
  }
  if (terms === 0) throw new UnitError(`Type ${wanted}.`);
  // 12 in are 304.8 mm, not 304.79999999999995.
  return converted ? Math.round(value * 1e9) / 1e9 : value;
}

function numberFrom(text: string): number {
  if (/^\d+,\d{3}$/.test(text)) throw new UnitError("Leave out the comma in thousands: 1000, not 1,000.");
  if (!text.includes("/")) return Number(text.replace(",", "."));
  const match = /^(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (!match || Number(match[3]) === 0) {
    throw new UnitError("A fraction needs a number other than 0 below the line.");
  }
  const [over, under] = [Number(match[2]), Number(match[3])];
  if (match[1] === undefined && over >= under && /\s/.test(text)) {
    const mixed = `${over} 1/${under}`;
    throw new UnitError(
      `Is that ${mixed}, or ${over} divided by ${under}? Type ${mixed}, or ${over}/${under} without spaces.`,
    );
  }
  return Number(match[1] ?? 0) + over / under;
}

/** The distance between neighbouring marks that a length is read to, in mm. */
export function lengthStep(mm: number, unit: LengthUnit): number {
  const thin = Math.abs(mm) < 50;
  if (unit === "in") return MM_PER_INCH / (thin ? 16 : 8);
  return thin ? 0.5 : 1;
}

function weightStep(grams: number, unit: WeightUnit): number {
  if (unit === "oz") return G_PER_OUNCE / 4;
  return Math.abs(grams) < 50 ? 1 : 5;
}

/** `value` to a multiple of `step`; a hair over a mark is that mark. */
export function roundTo(value: number, step: number, rounding: Rounding = "nearest"): number {
  const steps = value / step;
  if (Math.abs(steps - Math.round(steps)) < 1e-6) return Math.round(steps) * step;
  if (rounding === "up") return Math.ceil(steps) * step;
  if (rounding === "down") return Math.floor(steps) * step;
  return Math.floor(steps + 0.5) * step;
}

/** A length as read off a ruler. */
export function lengthMeasure(mm: number, unit: LengthUnit, rounding: Rounding = "nearest"): Measure {
  const rounded = roundTo(mm, lengthStep(mm, unit), rounding);
  if (unit === "in") return { number: inches(rounded), unit: "in" };
  return unit === "cm"
    ? { number: decimal(rounded / 10, 2), unit: "cm" }
    : { number: decimal(rounded, 1), unit: "mm" };
}

/** A weight in grams, rounded to what is read off a scale. */
export function weighed(grams: number, unit: WeightUnit, rounding: Rounding = "nearest"): number {
  return roundTo(grams, weightStep(grams, unit), rounding);
}

/** What parts read off a scale lack of their whole as read, in grams; below 0 where they come to more. */
export function lacking(
  parts: readonly { value: number; rounding: Rounding }[],
  whole: number,
  unit: WeightUnit,
): number {
  const sum = parts.reduce((all, part) => all + weighed(part.value, unit, part.rounding), 0);
  const rest = weighed(whole, unit, "up") - sum;
  return Math.abs(rest) < 0.5 ? 0 : rest;
}

/** A weight as read off a scale. */
export function weightMeasure(grams: number, unit: WeightUnit, rounding: Rounding = "nearest"): Measure {
  const rounded = weighed(grams, unit, rounding);
  if (unit === "g") {
    return Math.abs(rounded) >= 1000
      ? { number: decimal(rounded / 1000, 3), unit: "kg" }
      : { number: decimal(rounded, 0), unit: "g" };
  }
  const quarters = Math.round((Math.abs(rounded) / G_PER_OUNCE) * 4);
  const pounds = Math.floor(quarters / 64);
  const ounces = mixed(quarters % 64, 4);
  const sign = rounded < 0 && quarters ? "-" : "";
  return { number: sign + (pounds ? `${pounds} lb ${ounces}` : ounces), unit: "oz" };
}

/** A length that was typed, shown again: exact where the ruler has the mark, marked ≈ where it has not. */
export function lengthTyped(mm: number, unit: LengthUnit): Measure {
  if (unit !== "in") {
    return unit === "cm"
      ? { number: decimal(mm / 10, 3), unit: "cm" }
      : { number: decimal(mm, 2), unit: "mm" };
  }
  const sixteenths = roundTo(mm, MM_PER_INCH / 16);
  // A hair is not nothing.
  if (mm > 0 && sixteenths === 0) return { number: `≈ ${decimal(mm / MM_PER_INCH, 3)}`, unit: "in" };
  const about = Math.abs(sixteenths - mm) > 0.05 ? "≈ " : "";
  return { number: about + inches(sixteenths), unit: "in" };
}

/** A length that was typed, as text that reads back to the same length. */
export function lengthForEditing(mm: number, unit: LengthUnit): string {
  const { number, unit: shown } = lengthTyped(mm, unit);
  return number.startsWith("≈") ? `${decimal(mm, 2)} mm` : `${number} ${shown}`;
}

function inches(mm: number): string {
  const sixteenths = Math.round((Math.abs(mm) / MM_PER_INCH) * 16);
  return (mm < 0 && sixteenths ? "-" : "") + mixed(sixteenths, 16);
}

/** A count of parts as a whole number and a fraction in lowest terms: 10 sixteenths are 5/8. */
function mixed(count: number, parts: number): string {
  const whole = Math.floor(count / parts);
  let rest = count % parts;
  if (!rest) return String(whole);
  while (rest % 2 === 0) {
    rest /= 2;
    parts /= 2;
  }
  return whole ? `${whole} ${rest}/${parts}` : `${rest}/${parts}`;
}

/** A sum of money as this browser's language writes it. */
export function money(value: number, currency: string): string {
  return new Intl.NumberFormat(undefined, { style: "currency", currency }).format(value);
}

/** A number with at most `places` decimals and none that say nothing. */
export function decimal(value: number, places: number): string {
  const text = value.toFixed(places);
  const short = text.includes(".") ? text.replace(/0+$/, "").replace(/\.$/, "") : text;
  return short === "-0" ? "0" : short;
}
