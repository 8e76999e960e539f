/** The sections across a carved tier in hand: one for all of it, or several along it. */
import { computed, ref } from "vue";
import type { Tier } from "@/api/types";
import { useOrder } from "./order";

type Carved = Extract<Tier["build"], { kind: "carved" }>;
export type Section = Carved["sections"][number];
/** Which of them is in hand, from the left end of the tier. */
const held = ref(0);

export function useSections() {
  const order = useOrder();
  const build = computed(() => {
    const found = order.document?.design.tiers[order.tier]?.build;
    return found?.kind === "carved" ? found : undefined;
  });
  const sections = computed(() => build.value?.sections ?? []);
  const at = computed(() => Math.min(held.value, sections.value.length - 1));
  const inHand = computed(() => sections.value[at.value]);
  /** The one that is drawn by corners: that in hand where they differ along the tier, else that of all of it. */
  const form = computed(() => (inHand.value ? inHand.value.points_mm : build.value?.front_mm));
  const formSmooth = computed(() =>
    inHand.value ? inHand.value.smooth_corners : (build.value?.front_smooth_corners ?? []),
  );
  /** What is still asked of the build: how it is rounded where nothing else says so. */
  const asked = computed(() => {
    if (sections.value.length) return ["flat_foot"];
    return build.value?.front_mm ? [] : ["rounded", "flat_foot"];
  });

  function setForm(drawn: Carved, points_mm: Section["points_mm"], smooth_corners: number[]): void {
    const own = drawn.sections[at.value];
    if (own) Object.assign(own, { points_mm, smooth_corners });
    else [drawn.front_mm, drawn.front_smooth_corners] = [points_mm, smooth_corners];
  }

  /** Change the sections, which lie in their order from the left end. */
  function alter(how: (sections: Section[], build: Carved) => Section[]): void {
    const index = order.tier;
    order.edit((draft) => {
      const drawn = draft.design.tiers[index]?.build;
      if (drawn?.kind === "carved") drawn.sections = how(drawn.sections, drawn);
    });
  }

  /** One more, in the middle of the widest gap; the first two stand at both ends, as all of it was. */
  function add(): void {
    alter((sections, { rounded, front_mm, front_smooth_corners }) => {
      const as = { rounded, points_mm: front_mm, smooth_corners: front_smooth_corners };
      if (sections.length < 2) return [0, 1].map((at) => ({ ...as, ...sections[0], at }));
      const gaps = sections.slice(1).map((one, at) => one.at - (sections[at]?.at ?? 0));
      const before = gaps.indexOf(Math.max(...gaps));
      const [left, right] = [sections[before], sections[before + 1]];
      if (!left || !right) return sections;
      held.value = before + 1;
      return sections.toSpliced(before + 1, 0, {
        ...left,
        at: Math.round(50 * (left.at + right.at)) / 100,
      });
    });
  }

  /** Move the one in hand along the tier, or change how it is rounded; it is followed where it passes another. */
  function change(to: Partial<Section>): void {
    alter((sections) => {
      const own = { ...sections[at.value], ...to } as Section;
      const found = sections.with(at.value, own).toSorted((a, b) => a.at - b.at);
      held.value = found.indexOf(own);
      return found;
    });
  }

  /** Take the one in hand out; all of it is as the last one that is left. */
  function remove(): void {
    alter((sections, build) => {
      const found = sections.toSpliced(at.value, 1);
      const [only] = found;
      if (found.length > 1 || !only) return found;
      [build.rounded, build.front_mm] = [only.rounded, only.points_mm];
      build.front_smooth_corners = only.smooth_corners;
      return [];
    });
  }

  return { sections, at, held, inHand, form, formSmooth, asked, setForm, add, change, remove };
}
