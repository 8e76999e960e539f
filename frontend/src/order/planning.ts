/** The plan of the open order: requested after every edit, with progress, and again until it arrives. */
import { computed, ref, shallowRef, toRaw, type ShallowRef, watch } from "vue";
import { answered, api, asIs, isBusy, Refused, Unreachable } from "@/api/client";
import { lastOf, type Part } from "@/api/parts";
import type { Contents, Document, Figure, Kit, Plan } from "@/api/types";
import { Newest } from "@/base/newest";
import { useKit } from "@/kitchen/kit";
import { usePantry } from "@/kitchen/pantry";

const RETRY_AFTER_MS = 3000;
const RETRY_AT_MOST_MS = 60000;
/** So many plans are remembered: leaving a field asks for what was just tried out, and undo for what was there before. */
const REMEMBERED = 4;

/** Told of a plan that arrived, and of what the server cannot plan. */
export interface OnPlan {
  arrived: () => void;
  refused: (error: Refused) => void;
}

/** What a plan is made of. */
interface Asked {
  document: Document;
  kit: Kit | null;
  contents: Contents | undefined;
}

interface Planned {
  asked: Asked;
  plan: Plan;
}

export function usePlanning(document: ShallowRef<Document | null>, on: OnPlan) {
  const kit = useKit();
  const pantry = usePantry();
  const plan = shallowRef<Plan | null>(null);
  const planUnreachable = ref(false);
  /** Why the figures are not ready yet. The plan is requested again. */
  const stillWorking = ref("");
  /** Whether the figures on screen are from before the last change. */
  const behind = ref(false);
  /** The part of the plan that is being computed, and how far it is. */
  const part = ref<Part | null>(null);
  /** The plan was stopped. The next edit starts it again. */
  const stopped = ref(false);
  let retries = 0;
  const newest = new Newest();
  /** What a plan depends on besides the document, and its value at the last plan. */
  const beside = computed(() => JSON.stringify([kit.kit, pantry.larder?.contents]));
  let plannedWith = "";
  /** What the plan on screen was made of. */
  let planned: Asked | null = null;
  /** The last plans, by what they were made of as JSON. */
  const remembered = new Map<string, Planned>();

  watch(beside, (now) => {
    if (plannedWith && now !== plannedWith) void replan();
  });

  /** The plan of a document, with progress if it takes long. */
  async function planOf(asked: Document, signal?: AbortSignal): Promise<Plan> {
    return (await plannedOf(asked, signal)).plan;
  }

  async function plannedOf(document: Document, signal?: AbortSignal): Promise<Planned> {
    const asked = { document, kit: toRaw(kit.kit), contents: toRaw(pantry.larder)?.contents };
    const made = JSON.stringify(asked);
    const known = remembered.get(made);
    if (known) return known;
    const body = asIs(made, "application/json") as unknown as { body: Asked };
    const call = api.POST("/api/plan/parts", { ...body, signal, parseAs: "stream" });
    const found = await lastOf<Plan>(await answered(call), (told) => {
      if (signal && !signal.aborted) part.value = told;
    });
    remember(made, { asked, plan: found });
    return { asked, plan: found };
  }

  function remember(made: string, found: Planned): void {
    remembered.set(made, found);
    const [oldest] = remembered.keys();
    if (remembered.size > REMEMBERED && oldest !== undefined) remembered.delete(oldest);
  }

  /** A figure of the plan on screen with its working, which the plan itself comes without. */
  async function workingOf(figure: string): Promise<Figure> {
    if (!planned) throw new Error("nothing is planned");
    return (await answered(api.POST("/api/plan/figure", { body: { figure, ...planned } }))) as Figure;
  }

  /** Plan the document as it is now. Only the newest answer counts. */
  async function replan(): Promise<void> {
    if (!document.value) return;
    const signal = newest.begin();
    behind.value = true;
    stopped.value = false;
    // Both are requested before the screen follows the edit.
    if (!kit.shown || !pantry.larder) await Promise.all([kit.ready(), pantry.ready()]);
    if (signal.aborted) return;
    plannedWith = beside.value;
    try {
      const found = await plannedOf(toRaw(document.value), signal);
      if (signal.aborted) return;
      plan.value = found.plan;
      planned = found.asked;
      planUnreachable.value = false;
      stillWorking.value = "";
      retries = 0;
      on.arrived();
    } catch (error) {
      if (signal.aborted) return;
      if (error instanceof Refused && error.problem.status < 500) on.refused(error);
      else if (error instanceof Refused || error instanceof Unreachable) tryAgain(error);
      else throw error;
    } finally {
      if (newest.is(signal)) {
        behind.value = false;
        part.value = null;
      }
    }
  }

  function tryAgain(error: Refused | Unreachable): void {
    stillWorking.value = isBusy(error) ? error.problem.detail : "";
    planUnreachable.value = !stillWorking.value;
    newest.later(replan, Math.min(RETRY_AFTER_MS * 2 ** retries, RETRY_AT_MOST_MS));
    if (stillWorking.value) retries += 1;
  }

  /** Stop planning, until the next edit or until it is started again. */
  function stopPlanning(): void {
    newest.stop();
    behind.value = false;
    part.value = null;
    stillWorking.value = "";
    stopped.value = true;
  }

  /** Forget the plan of an order that is closed. */
  function dropPlan(): void {
    newest.stop();
    plan.value = null;
    planned = null;
    remembered.clear();
    plannedWith = "";
    stopped.value = false;
  }

  return {
    plan,
    planUnreachable,
    stillWorking,
    behind,
    part,
    stopped,
    planOf,
    workingOf,
    replan,
    stopPlanning,
    dropPlan,
  };
}
