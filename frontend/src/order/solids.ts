/** The solids a tier in hand is built of: which one is looked at, and how they are changed. */
import { computed, ref } from "vue";
import { answered, api } from "@/api/client";
import type { Solid, Tier } from "@/api/types";
import { tenth, within } from "@/base/round";
import { useHandbook } from "@/kitchen/handbook";
import { newOfKind, kindsOf } from "./kinds";
import { useOrder } from "./order";
import { newId } from "./partIds";

type Joined = Extract<Tier["build"], { kind: "joined" }>;
/** Sizes that differ by less are the same. */
const SAME_MM = 0.3;
const held = ref(0);
const from = ref<"side" | "above">("side");
/** One change after another, since each asks how wide the body is then. */
let queue: Promise<void> = Promise.resolve();

export function useSolids() {
  const order = useOrder();
  const handbook = useHandbook();
  const most = computed(() => handbook.limit("solids").high);
  const build = computed(() => {
    const found = order.document?.design.tiers[order.tier]?.build;
    return found?.kind === "joined" ? found : undefined;
  });
  const solids = computed<readonly Solid[]>(() => build.value?.solids ?? []);
  const at = computed(() => Math.min(held.value, solids.value.length - 1));
  const carving = computed(() => order.plan?.tiers[order.tier]?.carving ?? undefined);
  /** So many times as large as they were given the solids are; nothing until it is planned. */
  const times = computed(() => {
    const own = carving.value?.own_width?.value;
    const wide = order.document?.design.tiers[order.tier]?.tin_diameter_mm;
    return own && wide ? wide / own : undefined;
  });
  const trueSize = computed(() => {
    const own = carving.value?.own_width?.value ?? 0;
    return times.value === undefined || Math.abs(times.value - 1) * own < SAME_MM;
  });

  /**
   * Change the solids. Where they are at their true size the tier stays as wide as they are together, so that changing
   * one changes no other.
   */
  function alter(how: (solids: Solid[]) => void): Promise<void> {
    const index = order.tier;
    const { low, high } = handbook.limit("tin_diameter_mm");
    // Whatever came of the change before, which is told by itself.
    queue = queue
      .catch(() => undefined)
      .then(async () => {
        const now = order.document?.design.tiers[index];
        if (now?.build.kind !== "joined") return;
        const next = JSON.parse(JSON.stringify(now.build.solids)) as Solid[];
        how(next);
        const [before, after] = await Promise.all([
          widthOf(now.build),
          widthOf({ ...now.build, solids: next }),
        ]);
        const follows = before !== null && Math.abs(before - now.tin_diameter_mm) < SAME_MM;
        order.edit((draft) => {
          const tier = draft.design.tiers[index];
          if (tier?.build.kind !== "joined") return;
          tier.build.solids = next;
          if (follows && after !== null) tier.tin_diameter_mm = within(low, after, high);
        });
      });
    return queue;
  }

  /** How wide solids are together; nothing where they make no body, which planning them says. */
  async function widthOf(build: Joined): Promise<number | null> {
    try {
      const { width_mm } = await answered(api.POST("/api/width", { body: { build } }));
      return Math.round(width_mm * 100) / 100;
    } catch {
      return null;
    }
  }

  /** Begin with a few solids as large together as the tier is wide. */
  async function begin(index: number): Promise<Tier["build"] | null> {
    const tier = order.document?.design.tiers[index];
    if (!tier) return null;
    const build = newOfKind<Joined>(tier, "build", "joined");
    const own = await widthOf(build);
    if (own) build.solids = build.solids.map((one) => sized(one, tier.tin_diameter_mm / own));
    return build;
  }

  const set = (path: string, value: unknown): void => {
    void alter((list) => {
      // A path below the tier: build/solids/2/high_mm.
      const [, , index, field = ""] = path.split("/");
      const solid = list[Number(index)];
      if (solid) Object.assign(solid, { [field]: value });
    });
  };
  const move = (index: number, by: Partial<Record<"x_mm" | "y_mm" | "z_mm", number>>): void => {
    const { low, high } = handbook.limit("place_mm");
    void alter((list) => {
      const solid = list[index];
      if (!solid) return;
      for (const [field, mm] of Object.entries(by) as ["x_mm", number][])
        solid[field] = within(low, tenth((solid[field] ?? 0) + mm), high);
    });
  };
  const add = (): void => {
    if (solids.value.length >= most.value) return;
    held.value = solids.value.length;
    void alter((list) => {
      const tallest = list.at(-1);
      list.push({ ...newSolid("ball"), z_mm: tallest?.z_mm ?? 0 });
    });
  };
  const remove = (index: number): void => {
    if (solids.value.length < 2) return;
    held.value = Math.max(0, index - 1);
    void alter((list) => void list.splice(index, 1));
  };
  const copy = (index: number): void => {
    if (solids.value.length >= most.value) return;
    held.value = index + 1;
    void alter((list) => {
      const solid = list[index];
      if (solid) list.splice(index + 1, 0, { ...solid, y_mm: (solid.y_mm ?? 0) + 20 });
    });
  };
  const earlier = (index: number): void => {
    if (index < 1) return;
    held.value = index - 1;
    void alter((list) => void list.splice(index - 1, 0, ...list.splice(index, 1)));
  };
  /** Make what is cut out an opening of the tier, left empty: where it lies, at its own size. */
  const makeOpening = (index: number): void => {
    const [tier, place] = [order.tier, carving.value?.solids[0]?.place];
    const [first, solid] = [solids.value[0], solids.value[index]];
    if (!place || !first || !solid || index < 1) return;
    const placed = placedLike(solid, first, place);
    held.value = index - 1;
    order.edit((draft) => {
      const found = draft.design.tiers[tier];
      if (found?.build.kind !== "joined") return;
      found.build.solids.splice(index, 1);
      found.build.openings = [
        ...(found.build.openings ?? []),
        { id: newId(), solid: placed, medium: null, colour: null },
      ];
    });
  };
  const become = (index: number, kind: Solid["kind"]): void => {
    void alter((list) => {
      const before = list[index];
      if (before) list[index] = recast(before, kind);
    });
  };
  /** Give every solid the size it is drawn at now. */
  const keepSize = async (): Promise<void> => {
    const index = order.tier;
    const now = order.document?.design.tiers[index];
    if (now?.build.kind !== "joined") return;
    const own = await widthOf(now.build);
    if (own === null) return;
    order.edit((draft) => {
      const tier = draft.design.tiers[index];
      if (tier?.build.kind !== "joined") return;
      const by = tier.tin_diameter_mm / own;
      tier.build.solids = tier.build.solids.map((one) => sized(one, by));
    });
  };

  return {
    order,
    build,
    solids,
    at,
    held,
    from,
    carving,
    times,
    trueSize,
    most,
    begin,
    set,
    move,
    add,
    remove,
    copy,
    earlier,
    makeOpening,
    become,
    keepSize,
  };
}

/** A new solid of a kind. */
export function newSolid(kind: Solid["kind"]): Solid {
  const row = kindsOf("build/solids").find((one) => one.kind === kind);
  return structuredClone(row?.begins ?? { kind }) as Solid;
}

/** A solid as one of another kind, which keeps what it can have too. */
export function recast(before: Solid, kind: Solid["kind"]): Solid {
  const row = kindsOf("build/solids").find((one) => one.kind === kind);
  const own = new Set([...(row?.asks ?? []), ...(row?.picks ?? [])].map((one) => one.field));
  const keeps = (row?.keeps ?? []).filter((field) => own.has(field) && field in before);
  const kept = Object.fromEntries(keeps.map((field) => [field, before[field as keyof Solid]]));
  return { ...newSolid(kind), ...kept, kind } as Solid;
}

/** A solid where it lies in the tier, by where another one does. */
export function placedLike(solid: Solid, other: Solid, place: readonly number[]): Solid {
  const moved = (["x_mm", "y_mm", "z_mm"] as const).map((field, way) => [
    field,
    tenth((solid[field] ?? 0) - (other[field] ?? 0) + (place[way] ?? 0)),
  ]);
  return { ...solid, does: "join", ...Object.fromEntries(moved) } as Solid;
}

/** A solid so many times as large, and as far away. */
export function sized(solid: Solid, by: number): Solid {
  const grown = Object.entries(solid).map(([field, value]: [string, unknown]): [string, unknown] => {
    if (field === "points_mm")
      return [field, (value as [number, number][]).map(([x, y]) => [tenth(x * by), tenth(y * by)])];
    return [field, field.endsWith("_mm") && typeof value === "number" ? tenth(value * by) : value];
  });
  return Object.fromEntries(grown) as Solid;
}
