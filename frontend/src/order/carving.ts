/** The view a tier in hand is carved to, and the layer that is looked at. */
import { computed, ref } from "vue";
import { boundsOf, type Corner, middleAfter, mirrored, rounded } from "@/base/polygon";
import { useOrder } from "./order";

/** The corners a view may have. */
export const MOST_CORNERS = 400;
const LEAST_CORNERS = 3;
const FARTHEST_MM = 2000;
const looked = ref(1);

export function useCarving() {
  const order = useOrder();
  const build = computed(() => {
    const found = order.document?.design.tiers[order.tier]?.build;
    return found?.kind === "carved" ? found : undefined;
  });
  const points = computed<readonly (readonly number[])[]>(() => build.value?.points_mm ?? []);
  const carving = computed(() => order.plan?.tiers[order.tier]?.carving ?? undefined);
  const slices = computed(() => Object.values(carving.value?.slices ?? {}));
  const slice = computed(() => slices.value.find((one) => one.number === looked.value) ?? slices.value[0]);
  /** Millimetres of cake to one of the drawing: it is as wide as its tin. */
  const scale = computed(() => {
    const { left, right } = boundsOf(points.value);
    const across = order.plan?.tiers[order.tier]?.layers.cake_diameter.value ?? right - left;
    return right > left ? across / (right - left) : 1;
  });

  function draw(corners: readonly (readonly number[])[]): void {
    const index = order.tier;
    const kept = (mm: number): number =>
      Math.max(-FARTHEST_MM, Math.min(FARTHEST_MM, Math.round(mm * 10) / 10));
    order.edit((draft) => {
      const drawn = draft.design.tiers[index]?.build;
      if (drawn?.kind === "carved") drawn.points_mm = corners.map(([x = 0, y = 0]) => [kept(x), kept(y)]);
    });
  }

  const setPoint = (index: number, to: Corner): void => {
    draw(points.value.map((point, at) => (at === index ? to : point)));
  };
  const addAfter = (index: number): void => {
    if (points.value.length >= MOST_CORNERS) return;
    draw(points.value.toSpliced(index + 1, 0, middleAfter(points.value, index)));
  };
  const remove = (index: number): void => {
    if (points.value.length > LEAST_CORNERS) draw(points.value.toSpliced(index, 1));
  };
  const canRound = computed(() => points.value.length * 2 <= MOST_CORNERS);
  const canRemove = computed(() => points.value.length > LEAST_CORNERS);
  const round = (): void => {
    if (canRound.value) draw(rounded(points.value));
  };
  const mirror = (): void => {
    draw(mirrored(points.value));
  };

  return {
    order,
    build,
    points,
    carving,
    slices,
    slice,
    looked,
    scale,
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
