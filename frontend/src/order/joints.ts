/** The joints of a cake: what the selected tier stands on, what the board hidden in it does, what is pushed into it. */
import { computed } from "vue";
import type { JointPlan, Plan } from "@/api/types";
import { useOrder } from "./order";

/** The joint below a tier (counted from 0), or that inside it. */
export function jointAt(
  plan: Plan | null,
  tier: number,
  kind: "tier" | "inside" = "tier",
): JointPlan | undefined {
  return plan?.stack.joints[`${kind}_${plan.tiers[tier]?.id}`];
}

export function useJoint() {
  const order = useOrder();
  const below = computed(() => jointAt(order.plan, order.tier));
  const inside = computed(() => jointAt(order.plan, order.tier, "inside"));
  /** What the next tier stands on: its supports are pushed into this one. */
  const above = computed(() => jointAt(order.plan, order.tier + 1));
  /** The tier's own: below it, or inside the lowest. */
  const own = computed(() => below.value ?? inside.value);
  /** The one that is looked at: its own, or what is pushed into the lowest. */
  const joint = computed(() => own.value ?? above.value);
  const supports = computed(() => Object.entries(joint.value?.supports ?? {}));

  /** Set every support where it stands now, one of them moved. */
  function place(number: number, x: number, y: number): void {
    setPlaces(
      supports.value.map(([, one], index): [number, number] => (index === number ? [x, y] : [one.x, one.y])),
    );
  }

  /** Set the supports one by one. */
  function setPlaces(points: [number, number][]): void {
    const index = own.value ? order.tier : order.tier + 1;
    order.edit((draft) => {
      const stand = draft.design.tiers[index]?.stand;
      if (!stand) return;
      stand.places = "free";
      stand.points_mm = points;
    });
  }

  return { order, below, inside, above, own, joint, supports, place, setPlaces };
}
