/** What this browser keeps for a person. It may be full, or keep nothing at all; then it says so and nothing breaks. */

/** What is kept under a key, or nothing. */
export function recall(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Keep a text under a key. False where this browser does not. */
export function keep(key: string, text: string): boolean {
  try {
    localStorage.setItem(key, text);
    return true;
  } catch {
    return false;
  }
}

/** Keep nothing under a key any longer. */
export function letGo(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // A browser that keeps nothing has nothing to let go.
  }
}
