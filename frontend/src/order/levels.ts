/** A carved tier sliced at any height: where the slice handle stands, and what is cut there. */
import { computed, onUnmounted, ref, shallowRef, watch } from "vue";
import { answered, api } from "@/api/client";
import type { Level } from "@/api/types";
import { within } from "@/base/round";
import { useCarving } from "./carving";
import { nearestTo } from "./nearest";

/** How far up it is sliced, mm; nothing while whole layers are looked at. */
const at = ref<number | null>(null);
const levels = shallowRef<readonly Level[]>([]);
const trouble = ref("");
let asked = 0;
/** The plan that the levels are of, or are asked for. */
let known: unknown;

export function useLevels() {
  const { order, carving, slices, slice, looked } = useCarving();
  const high = computed(() => slices.value.at(-1)?.high.value ?? 0);
  const level = computed(() => (at.value === null ? undefined : nearestTo(levels.value, at.value)));
  /** How far up what is drawn is sliced: of the level that is nearest, once they are known. */
  const slicedAt = computed(() => level.value?.up_mm ?? at.value);

  /** The layer that is sliced at a height; between two of them the one above. */
  const layerAt = (up: number): number | undefined =>
    slices.value.find((one) => up <= one.high.value)?.number;

  /** Ask for all of them, once for every plan, and again where that failed and the handle is taken hold of; what comes
   * of an older question is left aside. */
  async function load(again = false): Promise<void> {
    if (!order.document || !carving.value) return;
    if (known === carving.value && !(again && trouble.value)) return;
    known = carving.value;
    levels.value = [];
    trouble.value = "";
    const mine = (asked += 1);
    try {
      const body = { document: order.document, tier: order.tier };
      const found = await answered(api.POST("/api/levels", { body }));
      if (mine !== asked) return;
      levels.value = found as Level[];
    } catch {
      if (mine === asked) trouble.value = "It could not be sliced just now.";
    }
  }

  function sliceAt(up: number): void {
    at.value = within(0, up, high.value);
    looked.value = layerAt(at.value) ?? looked.value;
    void load();
  }
  const whole = (): void => {
    at.value = null;
  };

  return {
    order,
    carving,
    slices,
    slice,
    looked,
    at,
    high,
    level,
    slicedAt,
    trouble,
    layerAt,
    load,
    sliceAt,
    whole,
  };
}

/** Held to the plan by whoever draws it: sliced anew when that changes, and whole again with another layer. */
export function useSlicing() {
  const slicing = useLevels();
  const { carving, looked, at, layerAt, load, whole } = slicing;
  watch(carving, () => {
    levels.value = [];
    if (at.value !== null) void load();
  });
  watch([looked, () => slicing.order.tier], () => {
    if (at.value !== null && layerAt(at.value) !== looked.value) whole();
  });
  onUnmounted(whole);
  return slicing;
}
