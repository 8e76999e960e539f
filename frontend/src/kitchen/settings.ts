/** How this person reads figures. Kept in the browser, apart for length and weight. */
import { defineStore } from "pinia";
import { computed, ref, watch } from "vue";
import type { Label, Limit, Quantity } from "@/api/types";
import { minutesMeasure, timeOfDay } from "@/base/amount";
import { keep, recall } from "@/base/browser";
import {
  decimal,
  G_PER_OUNCE,
  type LengthUnit,
  lengthMeasure,
  roundTo,
  money,
  type Measure,
  MM_PER_INCH,
  type Rounding,
  weightMeasure,
} from "@/base/units";
import type { WeightUnit } from "@/base/units";

const LENGTH_KEY = "amber:length";
const WEIGHT_KEY = "amber:weight";
const KEYS_KEY = "amber:single-keys";
const PAPER_KEY = "amber:paper";
export type Paper = "a4" | "letter";

function kept<T extends string>(key: string, allowed: readonly T[], usual: T): T {
  const found = recall(key) as T | null;
  return found && allowed.includes(found) ? found : usual;
}

/** A number with its unit, and the way it is rounded where the plan says so. */
export type Shown = Quantity & { rounding?: Rounding };

export const useSettings = defineStore("settings", () => {
  const length = ref(kept<LengthUnit>(LENGTH_KEY, ["in", "cm", "mm"], "in"));
  /** The kitchen's currency, as it keeps it with its prices. */
  const currency = ref("EUR");
  const weight = ref(kept<WeightUnit>(WEIGHT_KEY, ["g", "oz"], "g"));
  /** Keys without Ctrl do something; whoever speaks to the machine, or strikes them unawares, switches them off. */
  const singleKeys = ref(recall(KEYS_KEY) !== "no");
  /** The paper that was chosen; until one is, what is sold where lengths are in these units. */
  const chosenPaper = ref(kept<Paper | "">(PAPER_KEY, ["a4", "letter"], ""));
  const paper = computed({
    get: () => chosenPaper.value || (length.value === "in" ? "letter" : "a4"),
    set: (wanted: Paper) => {
      chosenPaper.value = wanted;
      keep(PAPER_KEY, wanted);
    },
  });
  watch(singleKeys, (work) => keep(KEYS_KEY, work ? "yes" : "no"));
  watch(length, (unit) => keep(LENGTH_KEY, unit));
  watch(weight, (unit) => keep(WEIGHT_KEY, unit));

  /** A quantity in this person's units, rounded in the direction that is safe for it, which the plan says. */
  function measure(quantity: Shown, rounding: Rounding = quantity.rounding ?? "nearest"): Measure {
    switch (quantity.unit) {
      case "mm":
        return lengthMeasure(quantity.value, length.value, rounding);
      case "g":
        return weightMeasure(quantity.value, weight.value, rounding);
      case "ml":
        return quantity.value >= 1000
          ? { number: decimal(roundTo(quantity.value / 1000, 0.01, rounding), 2), unit: "l" }
          : { number: decimal(roundTo(quantity.value, 1, rounding), 0), unit: "ml" };
      case "g_per_ml":
        return { number: decimal(quantity.value, 2), unit: "g per ml" };
      case "g_per_cm2":
        return { number: decimal(roundTo(quantity.value, 0.1, rounding), 1), unit: "g per cm²" };
      case "min":
        return minutesMeasure(quantity.value, rounding);
      case "degC":
        return { number: decimal(quantity.value, 0), unit: "°C" };
      case "deg":
        return { number: decimal(roundTo(quantity.value, 0.1, rounding), 1), unit: "°" };
      case "mm2":
        return { number: decimal(quantity.value / 100, 0), unit: "cm²" };
      case "each":
        return { number: decimal(quantity.value, 2), unit: "" };
      case "money":
        return { number: money(quantity.value, currency.value), unit: "" };
      case "ratio":
        return { number: decimal(roundTo(quantity.value, 0.01, rounding), 2), unit: "times" };
    }
  }

  /** The same as one piece of text. */
  function words(quantity: Shown): string {
    const { number, unit } = measure(quantity);
    return unit ? `${number} ${unit}` : number;
  }

  /** A value that people type, in the unit of its limit. */
  function typedWords(value: number, unit: Limit["unit"]): string {
    return unit === "time" ? timeOfDay(value) : words({ value, unit });
  }

  /** What people call an item, with the size of goods. */
  function labelWords({ name, size, length }: Label): string {
    if (!size) return name;
    if (size.unit === "each") return `${name} × ${size.value}`;
    return `${name} ${[size, length]
      .filter((side) => side !== null)
      .map((side) => words(side))
      .join(" × ")}`;
  }

  /**
   * The same before any rounding to a mark or a scale, for a working whose numbers must add up: to 0.01 mm, and in
   * inches as far as sixteenths go.
   */
  function unrounded(quantity: Quantity): string {
    const { value, unit } = quantity;
    if (unit === "mm") {
      if (length.value === "in") return `${decimal(value / MM_PER_INCH, 4)} in`;
      return length.value === "cm" ? `${decimal(value / 10, 3)} cm` : `${decimal(value, 2)} mm`;
    }
    if (unit === "g") {
      return weight.value === "g" ? `${decimal(value, 1)} g` : `${decimal(value / G_PER_OUNCE, 2)} oz`;
    }
    return unit === "ml" ? `${decimal(value, 1)} ml` : words(quantity);
  }

  /** A check's or a rule's text with each `{name}` replaced by its value. */
  function filled(text: string, values: Record<string, Shown>): string {
    return text.replace(/\{(\w+)\}/g, (whole, name: string) => (values[name] ? words(values[name]) : whole));
  }

  return {
    length,
    weight,
    paper,
    singleKeys,
    currency,
    measure,
    words,
    typedWords,
    labelWords,
    unrounded,
    filled,
  };
});
