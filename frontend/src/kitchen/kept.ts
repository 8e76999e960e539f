/**
 * A whole that the kitchen's server keeps, such as its pantry or its kit: changed one step after another, undone and
 * redone. A change is made to the whole as it stands when its turn comes, and made again where somebody else changed
 * it meanwhile, so that neither change is lost.
 */
import { computed, ref, shallowRef, type ShallowRef } from "vue";
import { type Complaint, Refused } from "@/api/client";
import type { Notice } from "@/api/types";
import { copied } from "@/base/copy";
import { History } from "@/base/history";
import { follow } from "./notices";

const TRIES = 4;

/** Thrown by a change that finds it should not be made; the message says why, and is empty where nobody need know. */
export class LeftAsItIs extends Error {}

/** Take out of a list the one that is meant, found by what it says: others may have gone since it was drawn. */
export function takeOut<T>(list: T[], meant: (one: T) => boolean): void {
  const at = list.findIndex(meant);
  if (at < 0) throw new LeftAsItIs();
  list.splice(at, 1);
}

export interface Ways<Shown extends { number: number; unread: string }, Whole> {
  /** What the server calls it when it is saved elsewhere. */
  what: Notice["what"];
  ask: () => Promise<Shown>;
  send: (beganFrom: number, whole: Whole) => Promise<Shown>;
  /** The whole in what the server shows of it. */
  of: (shown: Shown) => Whole;
  /** A complaint about what was sent, as a sentence. */
  say: (complaint: Complaint, sent: Whole | undefined) => string;
  /** What is said when it cannot be asked for; and what else is to be done when it is shown. */
  away?: string;
  seen?: (shown: Shown) => void;
}

export function useKept<Shown extends { number: number; unread: string }, Whole>(ways: Ways<Shown, Whole>) {
  const shown = shallowRef(null) as ShallowRef<Shown | null>;
  const trouble = ref("");
  const complaints = shallowRef<Complaint[]>([]);
  /** How many changes are on their way to the server; and whether the last met one of somebody else's. */
  const underway = ref(0);
  const joined = ref(false);
  const canUndo = ref(false);
  const canRedo = ref(false);
  let saving: Promise<boolean> = Promise.resolve(true);
  let history = new History<Whole>();

  function take(found: Shown): void {
    [canUndo.value, canRedo.value] = [history.canUndo, history.canRedo];
    shown.value = found;
    ways.seen?.(found);
    forgive();
  }

  /** What was wrong is being put right, or left. */
  function forgive(): void {
    trouble.value = "";
    complaints.value = [];
  }

  function failed(error: unknown, sent?: Whole): void {
    complaints.value = error instanceof Refused ? error.problem.errors : [];
    const [first] = complaints.value;
    if (error instanceof LeftAsItIs) trouble.value = error.message;
    else if (!(error instanceof Refused))
      trouble.value = "The kitchen's server cannot be reached just now. Nothing was changed; try again.";
    else if (error.problem.status === 422 && first && !first.pointer.startsWith("#/lines"))
      trouble.value = ways.say(first, sent);
    else trouble.value = error.problem.detail;
  }

  /** What is kept now. What was done before somebody else's change can no longer be undone. */
  async function newest(): Promise<void> {
    const found = await ways.ask();
    if (found.number !== shown.value?.number) history = new History<Whole>();
    take(found);
  }

  /** Show what was kept elsewhere, unless a change is under way or being mended, which meets it by itself. */
  async function catchUp(): Promise<void> {
    if (underway.value === 0 && !trouble.value && shown.value) await newest();
  }

  const lookAgain = follow(
    (notice) => notice.what === ways.what,
    () => shown.value?.number ?? 0,
    catchUp,
  );

  async function open(): Promise<void> {
    try {
      await newest();
    } catch (error) {
      failed(error);
      if (ways.away && !(error instanceof Refused)) trouble.value = ways.away;
    }
  }

  /** One step after another: what `make` has the server keep, out of what is shown then; `again` after a conflict. */
  function next(
    make: (before: Shown, again: boolean) => Promise<Shown>,
    remember: (before: Whole) => void,
    sent: () => Whole | undefined = () => undefined,
  ): Promise<boolean> {
    underway.value += 1;
    saving = saving.then(async () => {
      try {
        if (!shown.value) await newest();
        for (let tries = 1; ; tries += 1) {
          const before = shown.value as Shown;
          try {
            const found = await make(before, tries > 1);
            remember(ways.of(before));
            take(found);
            joined.value = tries > 1;
            return true;
          } catch (error) {
            const stale = error instanceof Refused && error.problem.status === 409;
            if (!stale || tries === TRIES) throw error;
            await newest();
          }
        }
      } catch (error) {
        failed(error, sent());
        return false;
      } finally {
        underway.value -= 1;
        lookAgain();
      }
    });
    return saving;
  }

  /** Keep what `how` makes of the whole. True when it was kept; else `trouble` says why, and nothing is changed. */
  function change(how: (whole: Whole) => unknown): Promise<boolean> {
    let sent: Whole | undefined;
    return next(
      (before) => {
        const whole = copied(ways.of(before));
        how(whole);
        sent = copied(whole);
        return ways.send(before.number, sent);
      },
      (before) => history.remember(before),
      () => sent,
    );
  }

  function step(wanted: () => Whole | undefined, remember: (now: Whole) => void): Promise<boolean> {
    return next((before, again) => {
      const whole = wanted();
      if (whole === undefined)
        throw new LeftAsItIs(
          again
            ? "Somebody else changed this meanwhile. What they kept is shown now, and your last step stays."
            : "",
        );
      return ways.send(before.number, copied(whole));
    }, remember);
  }

  const undo = (): Promise<boolean> =>
    step(
      () => history.before,
      (now) => history.undo(now),
    );
  const redo = (): Promise<boolean> =>
    step(
      () => history.after,
      (now) => history.redo(now),
    );

  /** Have the server change the whole itself, such as by a file; it can be undone as any other change. */
  const have = (make: () => Promise<Shown>): Promise<boolean> =>
    next(make, (before) => history.remember(before));

  const whole = computed(() => (shown.value ? ways.of(shown.value) : null));
  /** Why what was saved last cannot be read by this version; then the newest that it can read is shown. */
  const unread = computed(() => shown.value?.unread ?? "");

  return { shown, whole, unread, trouble, complaints, underway, joined, canUndo, canRedo, open, forgive, change, undo, redo, have }; // prettier-ignore
}
