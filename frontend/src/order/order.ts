/** The order on the bench: its document, its live plan, undo, and saving that loses nothing. */
import { defineStore } from "pinia";
import { computed, ref, shallowRef, toRaw } from "vue";
import { answered, api, type Complaint, Refused } from "@/api/client";
import type { Document, Order, Tier } from "@/api/types";
import { History } from "@/base/history";
import type { Differing } from "@/base/merge";
import { follow } from "@/kitchen/notices";
import { LENGTH_UNITS } from "@/base/units";
import { useDesk } from "@/ui/desk";
import { type Joined, joined } from "./joined";
import { useOrderDrafts } from "./orderDrafts";
import { usePlanning } from "./planning";
import { titled } from "./titled";
import { useTrials } from "./trials";

/** Changes a tier of a draft; `at` is its place. */
export type AlterTier = (tier: Tier, draft: Document, at: number) => void;
export type Status = "saved" | "editing" | "saving" | "unreachable" | "refused" | "stale";

const SAVE_AFTER_MS = 900;
/** Longest time without a save while somebody keeps editing. */
const SAVE_WITHIN_MS = 2000;
const RETRY_AFTER_MS = 3000;
/** A complaint about a request, as one about the document it carried. */
function inTheDocument(one: Complaint): Complaint {
  return {
    ...one,
    pointer: one.pointer.replace("#/document", "#"),
    field: one.field.replace(/^document\./, ""),
  };
}

export const useOrder = defineStore("order", () => {
  const id = ref("");
  const revision = ref(0);
  const savedAt = ref<Date | null>(null);
  const document = shallowRef<Document | null>(null);
  const desk = useDesk();
  const status = ref<Status>("saved");
  const stale = ref<{ current: number; aside: number; differing: Differing[] } | null>(null);
  /** What was saved elsewhere meanwhile is in this order together with what was changed here. */
  const withTheirs = ref(false);
  /** The document as revision `revision` has it, where it is known. */
  let base: Document | null = null;
  /** What is shown was last saved on another screen. */
  const fromElsewhere = ref(false);
  const drafts = useOrderDrafts();
  /** The time of the first edit that is not saved yet. */
  let editedAt = 0;
  const tier = ref(0);
  /** The id of the selected tier. */
  const tierId = computed(() => document.value?.design.tiers[tier.value]?.id ?? "");
  /** The path of the selected tier in the plan; the ids of its figures begin with it. */
  const path = computed(() => `tiers.${tierId.value}`);
  const every = ref(false);
  /** So many tiers the last change was made to, where it was made to every tier. */
  const changedTogether = ref(0);
  const planning = usePlanning(document, {
    arrived: () => {
      desk.complaints = [];
      if (status.value === "refused") touch();
    },
    refused: (error) => (desk.complaints = error.problem.errors.map(inTheDocument)),
  });
  const { plan, replan } = planning;
  const steps = ref(0);
  let history = new History<Document>();
  let undoneTo = 0;
  let saveTimer: ReturnType<typeof setTimeout> | undefined;
  let saving: Promise<void> | null = null;
  const canUndo = computed(() => steps.value >= 0 && (history.canUndo || undoneTo > 1));
  const canRedo = computed(() => steps.value >= 0 && history.canRedo);

  /** Open an order, with any drafts of it in this browser. */
  async function open(wanted: string): Promise<void> {
    await flush();
    close();
    const order = (await answered(
      api.GET("/api/orders/{id}", { params: { path: { id: wanted } } }),
    )) as Order;
    take(order);
    const found = await drafts.find(wanted);
    if (id.value !== wanted) return;
    drafts.begin(found);
    if (!(await takeUpNext())) await replan();
  }

  /**
   * Continue with the next draft that was never saved, from the revision it began from. Saving it merges it with what
   * was saved since. Returns whether there was one.
   */
  async function takeUpNext(): Promise<boolean> {
    const of = id.value;
    const draft = document.value && (await drafts.next(toRaw(document.value)));
    if (!draft || id.value !== of || !document.value) return false;
    history.remember(toRaw(document.value));
    if (draft.beganFrom !== revision.value) base = null;
    revision.value = draft.beganFrom;
    show(draft.document);
    drafts.adopted(draft);
    return true;
  }

  /** Take the tier above (1) or below (-1) in hand, as far as there are tiers. */
  function step(by: number): void {
    const last = (document.value?.design.tiers.length ?? 1) - 1;
    tier.value = Math.min(Math.max(tier.value + by, 0), last);
  }

  /** Put the order down. */
  function close(): void {
    clearTimeout(saveTimer);
    planning.dropPlan();
    history = new History<Document>();
    steps.value += 1;
    id.value = "";
    drafts.close();
    editedAt = 0;
    document.value = null;
    desk.complaints = [];
    stale.value = null;
    fromElsewhere.value = false;
    withTheirs.value = false;
    status.value = "saved";
    tier.value = 0;
    setEvery(false);
    desk.lit = "";
  }

  function take(order: Order): void {
    id.value = order.id;
    revision.value = order.revision;
    undoneTo = order.revision;
    savedAt.value = new Date(order.saved_at);
    layOut(order.document);
    base = order.document;
    status.value = "saved";
  }

  /** Show a document. The same tier stays selected, wherever it is now. */
  function layOut(next: Document): void {
    const { tiers } = next.design;
    const found = tiers.findIndex((one) => one.id === tierId.value);
    document.value = next;
    tier.value = found < 0 ? Math.min(tier.value, tiers.length - 1) : found;
  }

  /** Change the document: `change` gets a copy to alter. Undo brings back what was. */
  function edit(change: (draft: Document) => void): void {
    changedTogether.value = 0;
    withTheirs.value = false;
    if (!document.value) return;
    const before = toRaw(document.value);
    const after = structuredClone(before);
    change(after);
    retitle(before, after);
    // A document is JSON and nothing else: what a change put in may be watched by the screen, which cannot be cloned.
    const written = JSON.stringify(after);
    if (written === JSON.stringify(before)) return;
    history.remember(before);
    trials.drop();
    show(JSON.parse(written) as Document);
  }

  /** A title made of the tiers follows them, until somebody types one. */
  function retitle(before: Document, after: Document): void {
    if (after.title !== before.title) return;
    const unit = LENGTH_UNITS.find((one) => before.title === titled(before.design, one));
    if (unit) after.title = titled(after.design, unit);
  }

  /** What alters the tier at `index`, or every tier where that is what was asked for. */
  const altering =
    (index: number, alter: AlterTier) =>
    (draft: Document): void =>
      draft.design.tiers.forEach((tier, at) => {
        if (every.value || at === index) alter(tier, draft, at);
      });

  function editTier(index: number, alter: AlterTier): void {
    const before = document.value?.design.tiers ?? [];
    edit(altering(index, alter));
    const after = document.value?.design.tiers ?? [];
    const same = (tier: Tier, at: number): boolean => JSON.stringify(tier) === JSON.stringify(before[at]);
    changedTogether.value = every.value ? after.filter((tier, at) => !same(tier, at)).length : 0;
  }

  /** Show what `editTier` would make, and change nothing. */
  function tryTier(index: number, alter: AlterTier): void {
    tryOut(altering(index, alter));
  }

  /** Whether a change of the tier in hand is made to every tier. */
  function setEvery(wanted: boolean): void {
    every.value = wanted;
    changedTogether.value = 0;
  }

  const trials = useTrials({
    plan: (draft) => planning.planOf(draft),
    show: (found) => (plan.value = found),
    letGo: () => void replan(),
  });

  /** Show the cake as a change would make it, and change nothing: while something is dragged or typed. */
  function tryOut(change: (draft: Document) => void): void {
    if (!document.value) return;
    const draft = structuredClone(toRaw(document.value));
    change(draft);
    trials.begin(draft);
  }

  function show(next: Document): void {
    steps.value += 1;
    layOut(next);
    void replan();
    touch();
  }

  async function undo(): Promise<void> {
    if (!document.value) return;
    const now = toRaw(document.value);
    changedTogether.value = 0;
    const before = history.undo(now);
    if (before) show(before);
    else await undoEarlierVisit(now);
  }

  /** Undo past the start of this visit: the saved state before the one last shown. */
  async function undoEarlierVisit(now: Document): Promise<void> {
    const path = { id: id.value };
    const saved = await answered(api.GET("/api/orders/{id}/revisions", { params: { path } }));
    for (const older of saved) {
      if (older.aside || older.number >= undoneTo) continue;
      const params = { path: { ...path, number: older.number } };
      const found = (await answered(api.GET("/api/orders/{id}/revisions/{number}", { params }))) as Document;
      undoneTo = older.number;
      if (JSON.stringify(found) === JSON.stringify(now)) continue;
      history.stepBack(now);
      show(found);
      return;
    }
    undoneTo = 1;
    steps.value += 1;
  }

  function redo(): void {
    if (!document.value) return;
    const after = history.redo(toRaw(document.value));
    if (after) show(after);
  }

  /** Keep the edit in the browser at once, and send it to the server once the hands rest. */
  function touch(): void {
    if (!document.value) return;
    if (status.value !== "stale") status.value = "editing";
    clearTimeout(saveTimer);
    editedAt ||= Date.now();
    const wait = Math.min(SAVE_AFTER_MS, editedAt + SAVE_WITHIN_MS - Date.now());
    saveTimer = setTimeout(() => void save(), Math.max(0, wait));
    drafts.keep({ beganFrom: revision.value, document: document.value });
  }

  /** Save now. One save runs at a time; what is edited meanwhile is saved after it. */
  async function save(): Promise<void> {
    clearTimeout(saveTimer);
    if (saving) await saving;
    if (!document.value || status.value === "stale" || status.value === "saved") return;
    saving = send();
    await saving;
    saving = null;
    lookAgain();
  }

  async function send(): Promise<void> {
    const sent = document.value;
    const [target, key] = [id.value, drafts.key()];
    if (!sent) return;
    status.value = "saving";
    editedAt = 0;
    try {
      const body = { began_from: revision.value, document: sent };
      const order = await answered(api.PUT("/api/orders/{id}", { params: { path: { id: target } }, body }));
      if (id.value !== target) {
        drafts.dropIfSame(key, sent);
        return;
      }
      revision.value = order.revision;
      base = sent;
      savedAt.value = new Date(order.saved_at);
      fromElsewhere.value = false;
      if (document.value === sent) {
        drafts.drop();
        status.value = "saved";
        await takeUpNext();
      } else touch();
    } catch (error) {
      if (id.value === target && !(await putTogether(error, target))) failed(error);
    }
  }

  /** Both people's changes together, with mine and with theirs where they differ. */
  let both: Joined | null = null;

  /**
   * What was saved elsewhere meanwhile and what was changed here, put together where they are of different places; gives
   * whether they were. What both changed is left to be chosen.
   */
  async function putTogether(error: unknown, target: string): Promise<boolean> {
    both = null;
    if (!(error instanceof Refused) || error.problem.status !== 409 || !document.value) return false;
    try {
      const found = await joined(target, revision.value, base, toRaw(document.value));
      if (id.value !== target) return true;
      both = found;
      if (!found || found.differing.length > 0) return false;
      goOnWith(found, found.mine);
      withTheirs.value = true;
      return true;
    } catch {
      return false;
    }
  }

  function goOnWith({ found }: Joined, document: Document): void {
    take(found);
    history.remember(found.document);
    show(document);
  }

  function failed(error: unknown): void {
    if (error instanceof Refused && error.problem.status === 409) {
      stale.value = {
        current: error.problem.current ?? 0,
        aside: error.problem.aside ?? 0,
        differing: both?.differing ?? [],
      };
      status.value = "stale";
      drafts.drop();
    } else if (error instanceof Refused && error.problem.status < 500) {
      desk.complaints = error.problem.errors.map(inTheDocument);
      status.value = "refused";
    } else {
      status.value = "unreachable";
      saveTimer = setTimeout(() => void save(), RETRY_AFTER_MS);
    }
  }

  /**
   * After a stale save: go on from what the other one saved, or put this one on top of it. Throws Unreachable or
   * Refused, and changes nothing then.
   */
  async function settle(keepMine: boolean): Promise<void> {
    const mine = document.value;
    const order = (await answered(
      api.GET("/api/orders/{id}", { params: { path: { id: id.value } } }),
    )) as Order;
    stale.value = null;
    if (both && both.found.revision === order.revision) {
      goOnWith(both, keepMine ? both.mine : both.theirs);
      return;
    }
    take(order);
    if (keepMine && mine) {
      history.remember(order.document);
      show(mine);
    } else {
      steps.value += 1;
      await replan();
    }
  }

  /** Show what was saved on another screen, unless something is changed on this one: its save meets the other's. */
  async function catchUp(): Promise<void> {
    const of = id.value;
    if (!document.value || status.value !== "saved" || saving) return;
    const found = (await answered(api.GET("/api/orders/{id}", { params: { path: { id: of } } }))) as Order;
    if (id.value !== of || status.value !== "saved" || found.revision <= revision.value) return;
    if (document.value) history.remember(toRaw(document.value));
    steps.value += 1;
    take(found);
    fromElsewhere.value = true;
    await replan();
  }

  const lookAgain = follow(
    (notice) => notice.what === "order" && notice.id === id.value,
    () => revision.value,
    catchUp,
  );
  /** Whatever waits to be saved, saved; used before the order is left. */
  async function flush(): Promise<void> {
    if (status.value === "editing" || saving) await save();
  }

  return {
    id,
    revision,
    savedAt,
    document,
    plan,
    status,
    stale,
    planUnreachable: planning.planUnreachable,
    stillWorking: planning.stillWorking,
    behind: planning.behind,
    part: planning.part,
    stopped: planning.stopped,
    fromElsewhere,
    withTheirs,
    undrafted: drafts.undrafted,
    stray: drafts.stray,
    tier,
    tierId,
    path,
    canUndo,
    canRedo,
    open,
    step,
    close,
    every,
    changedTogether,
    setEvery,
    edit,
    editTier,
    tryTier,
    tryOut,
    endTrial: trials.end,
    undo,
    redo,
    replan,
    stopPlanning: planning.stopPlanning,
    workingOf: planning.workingOf,
    save,
    settle,
    flush,
    dropStray: drafts.dropStray,
  };
});
