/** The view a tier in hand is carved to, and the layer that is looked at. */
import { computed, ref, shallowRef, watch } from "vue";
import { middleOf, smoothWithAfter, smoothWithout, traced } from "@/base/curve";
import { boundsOf, type Corner, mirrored, rounded } from "@/base/polygon";
import { tenth, within } from "@/base/round";
import { useHandbook } from "@/kitchen/handbook";
import type { Picture } from "@/api/types";
import { useOrder } from "./order";
import { useSections } from "./sections";

/** A section with upright sides and a rounded top, between 0 and 1 both ways: what a view from the front begins with. */
const ARCH: readonly Corner[] = [
  [0, 0],
  [1, 0],
  [1, 0.55],
  [0.82, 0.9],
  [0.5, 1],
  [0.18, 0.9],
  [0, 0.55],
];
const looked = ref(1);
export type View = "side" | "front" | "above";
const seen = ref<View>("side");
/** An oval seen from above begins with so many corners, all of them smooth. */
const ROUND_CORNERS = 8;
/** The corner that is in hand. */
const corner = ref(0);
const inRound = ref(false);
/** The two ends of what is of a known length in the photograph, in mm of the view; nothing where none is marked. */
const ends = ref<[Corner, Corner] | null>(null);

export function useCarving() {
  const order = useOrder();
  const handbook = useHandbook();
  const { low: least, high: most } = handbook.limit("outline_corners");
  const build = computed(() => {
    const found = order.document?.design.tiers[order.tier]?.build;
    return found?.kind === "carved" ? found : undefined;
  });
  const shape = computed(() => order.document?.design.tiers[order.tier]?.shape);
  const { form, formSmooth, setForm } = useSections();
  const fromFront = computed(() => seen.value === "front" && Boolean(form.value));
  const fromAbove = computed(() => seen.value === "above" && shape.value?.kind === "free");
  /** Which view is drawn, where that asked for has one. */
  const view = computed<View>(() => {
    if (fromFront.value) return "front";
    return fromAbove.value ? "above" : "side";
  });
  const points = computed<readonly (readonly number[])[]>(() => {
    if (fromAbove.value && shape.value?.kind === "free") return shape.value.points_mm;
    return (fromFront.value ? form.value : build.value?.points_mm) ?? [];
  });
  /** Which of its corners are smooth, by their numbers from 0. */
  const smooth = computed<readonly number[]>(() => {
    if (fromAbove.value && shape.value?.kind === "free") return shape.value.smooth_corners;
    return fromFront.value ? formSmooth.value : (build.value?.smooth_corners ?? []);
  });
  /** How far the line through its corners reaches, which a curve may beyond them. */
  const bounds = computed(() => boundsOf(traced(points.value, new Set(smooth.value))));
  const carving = computed(() => order.plan?.tiers[order.tier]?.carving ?? undefined);
  /** Tins and bakes of the selected tier. */
  const baked = computed(() => order.plan?.carved[`tier_${order.tierId}`]);
  const slices = computed(() => Object.values(carving.value?.slices ?? {}));
  const slice = computed(() => slices.value.find((one) => one.number === looked.value) ?? slices.value[0]);
  /** How wide and how high the cake is in this view, mm. */
  const extent = computed(() => {
    const { left, right, low, high } = bounds.value;
    const layers = order.plan?.tiers[order.tier]?.layers;
    const across = layers?.cake_diameter.value;
    const deep = layers?.cake_length?.value ?? across;
    if (fromAbove.value) return { wide: across ?? right - left, high: deep ?? high - low };
    return {
      wide: (fromFront.value ? deep : across) ?? right - left,
      high: layers?.height.value ?? high - low,
    };
  });
  /**
   * Millimetres of cake per millimetre of drawing, across and up. It stays as it was at the last plan, so that read-outs
   * follow the hand until the next plan arrives.
   */
  const scale = shallowRef({ across: 1, up: 1 });
  watch(
    [() => order.plan, () => order.behind, () => order.tier, view],
    ([, behind, tier, seen], [, , before, seenBefore]) => {
      if (behind && tier === before && seen === seenBefore) return;
      const { left, right, low, high } = bounds.value;
      scale.value = {
        across: right > left ? extent.value.wide / (right - left) : 1,
        up: high > low ? extent.value.high / (high - low) : 1,
      };
    },
    { immediate: true },
  );

  /** Draw the view anew, some of its corners smooth; one that is traced from the side is at its true size, so that
   * the tin is as wide. */
  function draw(corners: readonly (readonly number[])[], curved: readonly number[] = []): void {
    const [index, from] = [order.tier, view.value];
    const { low, high } = handbook.limit("coordinate_mm");
    const tins = handbook.limit("tin_diameter_mm");
    const kept = (mm: number): number => tenth(within(low, mm, high));
    order.edit((draft) => {
      const tier = draft.design.tiers[index];
      if (tier?.build.kind !== "carved") return;
      const drawn = tier.build;
      const found = corners.map(([x = 0, y = 0]): Corner => [kept(x), kept(y)]);
      const { left, right } = boundsOf(traced(found, new Set(curved)));
      if (from === "front") setForm(drawn, found, [...curved]);
      else if (from === "above") {
        tier.shape = { kind: "free", points_mm: found, smooth_corners: [...curved] };
        if (drawn.above_picture) tier.tin_diameter_mm = within(tins.low, tenth(right - left), tins.high);
      } else {
        [drawn.points_mm, drawn.smooth_corners] = [found, [...curved]];
        if (drawn.picture) tier.tin_diameter_mm = within(tins.low, tenth(right - left), tins.high);
      }
    });
  }

  /** Give the sections a form of their own, as deep and as high as the cake is; or round them off again. */
  function setFront(own: boolean): void {
    const index = order.tier;
    const layers = order.plan?.tiers[index]?.layers;
    const deep = (layers?.cake_length ?? layers?.cake_diameter)?.value ?? 100;
    const high = layers?.height.value ?? 100;
    order.edit((draft) => {
      const drawn = draft.design.tiers[index]?.build;
      if (drawn?.kind !== "carved") return;
      setForm(drawn, own ? ARCH.map(([x, y]): Corner => [tenth(x * deep), tenth(y * high)]) : null, []);
    });
  }

  /** Draw what is seen from above by corners, as the tin is now; or take the shape of a round tin again. */
  function setAbove(own: boolean): void {
    const index = order.tier;
    const { wide, deep, square } = plainAbove();
    const corners: Corner[] = square
      ? [
          [0, 0],
          [wide, 0],
          [wide, deep],
          [0, deep],
        ]
      : Array.from({ length: ROUND_CORNERS }, (_, at): Corner => {
          const turn = (2 * Math.PI * at) / ROUND_CORNERS;
          return [tenth((wide / 2) * (1 + Math.cos(turn))), tenth((deep / 2) * (1 + Math.sin(turn)))];
        });
    order.edit((draft) => {
      const tier = draft.design.tiers[index];
      const smooth_corners = square ? [] : corners.map((_, at) => at);
      if (tier) tier.shape = own ? { kind: "free", points_mm: corners, smooth_corners } : { kind: "round" };
    });
  }

  function plainAbove(): { wide: number; deep: number; square: boolean } {
    const layers = order.plan?.tiers[order.tier]?.layers;
    const wide = tenth(layers?.cake_diameter.value ?? 200);
    const deep = tenth(layers?.cake_length?.value ?? wide);
    return { wide, deep, square: ["square", "rectangle"].includes(shape.value?.kind ?? "") };
  }

  const PICTURES = { side: "picture", front: "front_picture", above: "above_picture" } as const;
  /** The photograph under the view that is drawn. */
  const picture = computed(() => build.value?.[PICTURES[view.value]] ?? null);

  /** Lay a photograph under the view, move or size the one there, or take it away. */
  function setPicture(next: Picture | null): void {
    const [index, under] = [order.tier, PICTURES[view.value]];
    order.edit((draft) => {
      const drawn = draft.design.tiers[index]?.build;
      if (drawn?.kind === "carved") drawn[under] = next;
    });
  }

  const setPoint = (index: number, to: Corner): void => {
    draw(
      points.value.map((point, at) => (at === index ? to : point)),
      smooth.value,
    );
  };
  const addAfter = (index: number): void => {
    if (points.value.length >= most) return;
    const middle = middleOf(points.value, new Set(smooth.value), index);
    draw(
      points.value.toSpliced(index + 1, 0, middle),
      smoothWithAfter(smooth.value, index, points.value.length),
    );
    corner.value = index + 1;
  };
  const remove = (index: number): void => {
    if (canRemove.value) draw(points.value.toSpliced(index, 1), smoothWithout(smooth.value, index));
  };
  /** Run the line through a corner in a curve, or turn it there. */
  const setSmooth = (index: number, on: boolean): void => {
    draw(
      points.value,
      on ? [...smooth.value, index].toSorted((a, b) => a - b) : smooth.value.filter((one) => one !== index),
    );
  };
  const canRound = computed(() => points.value.length * 2 <= most);
  const canRemove = computed(() => points.value.length > least);
  const round = (): void => {
    if (canRound.value) draw(rounded(points.value));
  };
  const mirror = (): void => {
    const last = points.value.length - 1;
    draw(mirrored(points.value), smooth.value.map((index) => last - index).toReversed());
  };

  return {
    order,
    build,
    points,
    smooth,
    bounds,
    corner,
    setSmooth,
    carving,
    baked,
    slices,
    slice,
    looked,
    scale,
    seen,
    inRound,
    fromFront,
    fromAbove,
    view,
    setAbove,
    picture,
    setPicture,
    ends,
    setFront,
    draw,
    setPoint,
    addAfter,
    remove,
    canRemove,
    canRound,
    round,
    mirror,
  };
}
