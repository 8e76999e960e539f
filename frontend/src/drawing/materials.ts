/** What a cut surface shows of what it is of: the crumb of a cake, the shine of a curd, the strokes of a knife. */
import { computed } from "vue";
import type { Medium, Part, Recipe } from "@/api/types";
import { usePantry } from "@/kitchen/pantry";
import { useOrder } from "@/order/order";
import { tierIn } from "./annotations";
import type { Grain } from "./crumb";
import { hexOf, isDark } from "./tone";

/** A cake's colour where it is cut, and which of the grains it has. */
export interface Crumb {
  hex: string;
  grain: string;
}

/** How cut cake looks, by name: close for a sponge, large for what is wet with cocoa or honey, flecked with nuts. */
export const GRAINS: Record<string, Grain> = {
  close: { count: 130, least: 0.7, most: 2.7, large: 0.06, flecks: 0 },
  large: { count: 70, least: 1, most: 3.6, large: 0.14, flecks: 0 },
  flecked: { count: 100, least: 0.7, most: 2.2, large: 0.05, flecks: 40 },
};
/** No two layers beside each other show the same tile. */
export const VARIANTS = 3;

/** What of a recipe colours the crumb, the strongest first: an item whose key has the word, its colour and grain. */
const TELLS: readonly (readonly [RegExp, Crumb])[] = [
  [/cocoa|chocolate/, { hex: "#6B4029", grain: "large" }],
  [/carrot|ginger|treacle|molasses/, { hex: "#B97B3E", grain: "large" }],
  [/honey|caramel|brown_sugar/, { hex: "#D9A75B", grain: "large" }],
  [/almond|hazelnut|walnut|pistachio|pecan|nut|poppy|coconut/, { hex: "#E4C895", grain: "flecked" }],
];
const PLAIN: Crumb = { hex: "#EBCB8C", grain: "close" };

/** The crumb of a cake by what goes into it. */
export function crumbOf(recipe: Pick<Recipe, "lines"> | undefined): Crumb {
  const items = (recipe?.lines ?? []).map((line) => line.item);
  return TELLS.find(([word]) => items.some((item) => word.test(item)))?.[1] ?? PLAIN;
}

export type Finish = "curd" | "seeds" | "gloss" | "strokes" | "plain";

/** What the cut face of a medium shows. */
export function finishOf(medium: Pick<Medium, "kind" | "key" | "name" | "soft"> | undefined): Finish {
  switch (medium?.kind) {
    case "ganache":
    case "chocolate":
    case "glaze":
      return "gloss";
    case "buttercream":
    case "frosting":
      return "strokes";
    case "filling":
      return /jam|preserve|berry|fig|compote/i.test(`${medium.key} ${medium.name}`) ? "seeds" : "curd";
    default:
      return "plain";
  }
}

/** How a part of the drawing looks: its colour, the pattern over that where it has one, whether it is baked. */
interface Look {
  hex: string;
  over: string;
  baked: boolean;
  finish: Finish;
}

/** How the medium of each part looks, by the part's id. */
function byId(
  parts: readonly { id: string; medium?: string | null }[],
  finish: (key: string | null | undefined) => Finish,
): Map<string, Finish> {
  return new Map(parts.map((one) => [one.id, finish(one.medium)]));
}

export function useMaterials() {
  const order = useOrder();
  const pantry = usePantry();
  const recipes = computed(() => new Map((pantry.larder?.recipes ?? []).map((one) => [one.key, one])));
  const media = computed(
    () =>
      new Map(
        [...(pantry.larder?.media ?? []), ...(order.document?.media ?? [])].map((one) => [one.key, one]),
      ),
  );
  /** The crumb and the media of each tier, by the kind of part they fill. */
  const tiers = computed(() =>
    (order.document?.design.tiers ?? []).map((tier) => {
      const { filling, crumb, final, cover } = tier;
      const finish = (key: string | null | undefined): Finish => finishOf(media.value.get(key ?? ""));
      const dam = "dam_medium" in filling ? finish(filling.dam_medium) : "plain";
      return {
        crumb: crumbOf(recipes.value.get(tier.layers.cake)),
        finishes: {
          filling: finish(filling.medium),
          dam,
          seal: dam,
          crumb: finish(crumb.medium),
          final: finish("medium" in final ? final.medium : null),
          cover: finish("medium" in cover ? cover.medium : null),
        } as Partial<Record<Part["kind"], Finish>>,
        regions: byId(tier.regions, finish),
        openings: byId("openings" in tier.build ? tier.build.openings : [], finish),
      };
    }),
  );

  /** The crumb of one tier's cake. */
  const crumbIn = (number: number): Crumb => tiers.value[number]?.crumb ?? PLAIN;

  /** How one part looks; `turn` counts the layers, so that no two beside each other look the same. */
  function lookOf(part: Part, turn: number): Look {
    const number = tierIn(order.plan, part.place);
    const tier = tiers.value[number];
    if (part.kind === "sponge") {
      const { hex, grain } = crumbIn(number);
      const over = `url(#${grain}-${(turn + number) % VARIANTS}${isDark(hex) ? "-dark" : ""})`;
      return { hex, over, baked: true, finish: "plain" };
    }
    const id = /\.(?:opening|region)_([a-z0-9]+)$/.exec(part.place)?.[1] ?? "";
    const own = { refill: tier?.openings, region: tier?.regions }[part.kind as string]?.get(id);
    const finish = own ?? tier?.finishes[part.kind] ?? "plain";
    const pattern = part.kind === "board" ? "card" : PATTERNS[finish];
    return { hex: hexOf(part.paint), over: pattern ? `url(#${pattern})` : "", baked: false, finish };
  }

  /** Parts with how each looks. */
  function looks(parts: readonly Part[]): (Part & Look)[] {
    const turns = new Map<string, number>();
    return parts.map((part) => {
      const turn = turns.get(part.place) ?? 0;
      turns.set(part.place, turn + 1);
      return { ...part, ...lookOf(part, turn) };
    });
  }

  return { crumbIn, looks };
}

/** What is laid over the colour of a medium; shines are drawn as lines of their own. */
const PATTERNS: Record<Finish, string> = {
  curd: "",
  seeds: "seeds",
  gloss: "",
  strokes: "strokes",
  plain: "",
};
