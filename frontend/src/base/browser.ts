/** What this browser keeps for a person. It may be full, or keep nothing at all; then it says so and nothing breaks. */

export interface Keeping {
  /** What is kept under a key, or nothing. */
  recall: (key: string) => string | null;
  /** Keep a text under a key. False where this browser does not. */
  keep: (key: string, text: string) => boolean;
  /** Keep nothing under a key any longer. */
  letGo: (key: string) => void;
  /** Every key with this prefix. */
  keysOf: (prefix: string) => string[];
}

/** The store is asked for each time: where a browser keeps nothing, asking for it is what fails. */
function keepingIn(store: () => Storage): Keeping {
  function tried<T>(what: () => T, otherwise: T): T {
    try {
      return what();
    } catch {
      return otherwise;
    }
  }
  return {
    recall: (key) => tried(() => store().getItem(key), null),
    keep: (key, text) =>
      tried(() => {
        store().setItem(key, text);
        return true;
      }, false),
    letGo: (key) => {
      tried(() => {
        store().removeItem(key);
      }, undefined);
    },
    keysOf: (prefix) =>
      tried(
        () =>
          Array.from({ length: store().length }, (_, at) => store().key(at) ?? "").filter((key) =>
            key.startsWith(prefix),
          ),
        [],
      ),
  };
}

/** For good. */
export const { recall, keep, letGo, keysOf } = keepingIn(() => localStorage);
/** For this visit, over a page that is loaded anew. */
export const visit = keepingIn(() => sessionStorage);
