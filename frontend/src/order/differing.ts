/** Where two people's changes differ, in the words of the screen, and what each of them has there. */
import type { Document } from "@/api/types";
import type { Differing } from "@/base/merge";
import { useHandbook } from "@/kitchen/handbook";
import { useSettings } from "@/kitchen/settings";
import { askAt, kindsOf } from "./kinds";

export interface Compared {
  where: string;
  mine: string;
  theirs: string;
}

const WORDS: Record<string, string> = {
  title: "title",
  due: "due",
  servings: "servings wanted",
  customer: "customer",
  notes: "notes",
  tiers: "the tiers",
  colours: "the colours",
  practice: "this order's usual",
  media: "its own media",
  orders: "what is decided of bowls",
};

export function useDiffering() {
  const handbook = useHandbook();
  const settings = useSettings();

  /** A place both changed, as a person would call it; `mine` is the document it stands in. */
  function compared(one: Differing, mine: Document, names: readonly string[]): Compared {
    const [first, second, at, ...rest] = one.path;
    const tier = first === "design" && second === "tiers" && typeof at === "number" ? at : null;
    const field = tier === null ? "" : rest.join("/");
    const held = tier === null ? undefined : mine.design.tiers[tier];
    const ask = held && field ? askAt(held, field) : undefined;
    const where =
      tier === null ? plain(one.path) : `${names[tier] ?? `tier ${tier + 1}`}: ${called(ask?.words, rest)}`;
    const unit = ask ? handbook.limit(ask.limit).unit : null;
    const said = (value: unknown): string => {
      if (value === undefined) return "removed";
      if (value === null) return "left to the usual";
      if (typeof value === "number") return unit ? settings.typedWords(value, unit) : String(value);
      if (typeof value === "string")
        return handbook.media.some((one) => one.key === value) ? handbook.mediumName(value) : value;
      if (typeof value === "boolean") return value ? "yes" : "no";
      const { kind } = value as { kind?: string };
      if (kind) return kindsOf(field).find((one) => one.kind === kind)?.words ?? kind;
      return Array.isArray(value) ? `${value.length} of them` : "changed";
    };
    return { where, mine: said(one.mine), theirs: said(one.theirs) };
  }

  function plain(path: Differing["path"]): string {
    return (
      [...path]
        .reverse()
        .map((step) => WORDS[String(step)])
        .find((words) => words !== undefined) ?? String(path.at(-1)).replaceAll("_", " ")
    );
  }

  function called(words: string | undefined, rest: Differing["path"]): string {
    return (
      words ??
      rest
        .filter((step) => typeof step === "string")
        .join(", ")
        .replaceAll("_", " ")
    ).toLowerCase();
  }

  return { compared };
}
