/** Steps that are marked or moved: tried first where something is to be seen first, and taken back with one press. */
import { defineStore } from "pinia";
import { ref, shallowRef } from "vue";
import { answered, api, fieldWordsOf } from "@/api/client";
import type { Changes, Noted } from "@/api/types";
import { momentCode } from "@/base/time";

const AWAY = "The kitchen's server cannot be reached just now. Nothing was marked; try again.";

/** A step of an order, with what is noted at it. */
export interface Target {
  order: string;
  step: string;
  noted: Noted | null;
}

/** What was done to an order: a step was marked or moved, or it is planned from now on, or no longer. */
type Deed = { at: Target; mark: Noted | null } | { order: string; fromNow: boolean };

interface Done {
  /** The step, or the order. */
  of: string;
  changes: Changes;
  back: Deed;
}

const keyOf = (deed: Deed): string => ("at" in deed ? `${deed.at.order} ${deed.at.step}` : deed.order);

export const useMarks = defineStore("marks", () => {
  /** What a step would move, where it is to start at another hour. */
  const tried = shallowRef<{ of: string; start: string; changes: Changes }>();
  /** What was marked last, and what that moved. */
  const done = shallowRef<Done>();
  const trouble = ref<{ of: string; words: string }>();
  const busy = ref(false);

  async function send(deed: Deed, keep: boolean): Promise<Changes | undefined> {
    const [of, now] = [keyOf(deed), momentCode(new Date())];
    busy.value = true;
    trouble.value = undefined;
    try {
      if ("fromNow" in deed) {
        const [params, body] = [{ path: { id: deed.order } }, { now, keep, on: deed.fromNow }];
        return await answered(api.POST("/api/orders/{id}/from-now", { params, body }));
      }
      const { at, mark } = deed;
      const body = { now, keep, step: at.step, mark, seen: at.noted };
      return await answered(api.POST("/api/orders/{id}/marks", { params: { path: { id: at.order } }, body }));
    } catch (error) {
      trouble.value = { of, words: fieldWordsOf(error, AWAY) };
      return undefined;
    } finally {
      busy.value = false;
    }
  }

  /** See what a step would move if it started at another hour. */
  async function tryAt(at: Target, start: string): Promise<void> {
    const changes = await send({ at, mark: { start } }, false);
    tried.value = changes && { of: `${at.order} ${at.step}`, start, changes };
  }

  async function keep(deed: Deed, back: Deed): Promise<void> {
    const changes = await send(deed, true);
    tried.value = undefined;
    done.value = changes && { of: keyOf(deed), changes, back };
  }

  /** Mark a step, or take its mark away. */
  const mark = (at: Target, mark: Noted | null): Promise<void> =>
    keep({ at, mark }, { at: { ...at, noted: mark }, mark: at.noted });

  /** Plan an order from now, or no longer. */
  const fromNow = (order: string, on: boolean): Promise<void> =>
    keep({ order, fromNow: on }, { order, fromNow: !on });

  /** Take back what was marked last. */
  async function undo(): Promise<void> {
    const back = done.value?.back;
    if (back && (await send(back, true))) done.value = undefined;
  }

  /** Forget what was tried, and what is said of the last mark. */
  function letGo(): void {
    tried.value = undefined;
    done.value = undefined;
    trouble.value = undefined;
  }

  return { tried, done, trouble, busy, tryAt, mark, fromNow, undo, letGo };
});
