/** Parts of a page that are loaded when they are first shown, or before that while the browser has nothing else to do. */
import { type Component, defineAsyncComponent, ref, type Ref, watch } from "vue";

type Load = () => Promise<unknown>;
const TRIES = 4;
const AGAIN_MS = 800;
const waiting = new Set<Load>();

/** A component that is loaded when it is first shown. */
export function later<T extends Component>(load: () => Promise<{ default: T }>): T {
  waiting.add(load);
  return defineAsyncComponent({
    loader: load,
    onError(_, again, fail, tried) {
      if (tried < TRIES) setTimeout(again, AGAIN_MS * tried);
      else fail();
    },
  });
}

/** Whether something has been so since the page was opened: what was loaded once it was wanted stays from then on. */
export function everSo(isSo: () => boolean): Ref<boolean> {
  const found = ref(false);
  watch(isSo, (now) => (found.value ||= now), { immediate: true });
  return found;
}

/** Load the rest in idle moments, so that it opens at once and is there when the server is away. */
export function loadTheRest(more: readonly Load[]): void {
  for (const load of more) waiting.add(load);
  whenIdle(loadNext);
}

function loadNext(): void {
  const [next] = waiting;
  if (!next) return;
  waiting.delete(next);
  void next()
    // Whoever wants it loads it again.
    .catch(() => undefined)
    .then(() => {
      whenIdle(loadNext);
    });
}

function whenIdle(run: () => void): void {
  // Safari has no such callback.
  if ("requestIdleCallback" in window) requestIdleCallback(run, { timeout: 2000 });
  else setTimeout(run, 100);
}
