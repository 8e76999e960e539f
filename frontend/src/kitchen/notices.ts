/** What is saved on other screens, heard as it happens, for as long as this page is looked at. */
import { getCurrentScope, onScopeDispose } from "vue";
import type { Notice } from "@/api/types";

/** Told of a save; or of null, when saves may have been missed and what is shown is to be asked for anew. */
export type Hearer = (notice: Notice | null) => void;

const AGAIN_MS = 3000;
const hearers = new Set<Hearer>();
let stream: EventSource | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Tell every hearer on this page. */
export function tell(notice: Notice | null): void {
  for (const hearer of hearers) hearer(notice);
}

/** Hear from now on, for as long as the store or component stands that asks. */
export function hear(hearer: Hearer): void {
  hearers.add(hearer);
  if (getCurrentScope()) onScopeDispose(() => hearers.delete(hearer));
}

/**
 * Follow one thing that is kept under numbers: `catchUp` is asked for when more than the number `shown` was heard of,
 * or may have been missed. Nobody waits for it: where it fails, what is shown stays, and the next save says what is
 * amiss. What comes back asks again whether more was heard of, after a change of this page's own.
 */
export function follow(
  concerns: (notice: Notice) => boolean,
  shown: () => number,
  catchUp: () => Promise<void>,
): () => void {
  let newest: Notice | null = null;
  const behind = (): boolean => newest !== null && concerns(newest) && newest.number > shown();
  const ask = (): void => void catchUp().catch(() => undefined);
  hear((notice) => {
    if (notice && !concerns(notice)) return;
    newest = notice ?? newest;
    if (!notice || behind()) ask();
  });
  return () => {
    if (behind()) ask();
  };
}

/** Hear of what concerns a component; saves in quick succession are told of once, after so many ms of rest. */
export function useNotices(
  hearer: () => unknown,
  concerns: (notice: Notice) => boolean,
  restMs: number,
): void {
  let waiting: ReturnType<typeof setTimeout> | undefined;
  hear((notice) => {
    if (notice && !concerns(notice)) return;
    clearTimeout(waiting);
    waiting = setTimeout(hearer, restMs);
  });
  onScopeDispose(() => clearTimeout(waiting));
}

/** Listen while the page is looked at: a browser has few connections to give, and a hidden page needs none. */
export function listen(): void {
  document.addEventListener("visibilitychange", look);
  look();
}

function look(): void {
  clearTimeout(timer);
  if (document.visibilityState === "hidden") {
    stream?.close();
    stream = null;
  } else if (!stream) {
    stream = new EventSource("/api/notices");
    stream.onopen = () => tell(null);
    stream.onmessage = (event: MessageEvent<string>) => tell(JSON.parse(event.data) as Notice);
    stream.onerror = () => {
      // A lost connection is opened again by the browser; one that was refused is not.
      if (stream?.readyState !== EventSource.CLOSED) return;
      stream = null;
      timer = setTimeout(look, AGAIN_MS);
    };
  }
}
