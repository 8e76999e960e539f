/** The name of this browser tab, and whether other tabs are still open. */
import { visit } from "./browser";

const KEY = "amber:tab";
const lockOf = (tab: string): string => `amber-tab-${tab}`;
const made = (): string => Math.random().toString(36).slice(2, 12);

/** Duplicating a tab copies its name, so a tab owns a name only while it holds the lock. */
async function claimed(): Promise<string> {
  const locks = (navigator as Partial<Navigator>).locks;
  let name = visit.recall(KEY) ?? made();
  while (locks && !(await held(locks, name))) name = made();
  visit.keep(KEY, name);
  return name;
}

/** Hold the lock of a name for as long as this tab is open. False where another tab holds it. */
function held(locks: LockManager, name: string): Promise<boolean> {
  return new Promise((told) => {
    void locks.request(lockOf(name), { ifAvailable: true }, (lock) => {
      told(lock !== null);
      return lock ? new Promise(() => undefined) : undefined;
    });
  });
}

let own: Promise<string> | null = null;

/** The name of this tab. */
export function thisTab(): Promise<string> {
  own ??= claimed();
  return own;
}

/** Whether another tab of that name is open. False if the browser has no locks. */
export async function isOpen(tab: string): Promise<boolean> {
  const locks = (navigator as Partial<Navigator>).locks;
  const found = await locks?.query();
  return found?.held?.some((one) => one.name === lockOf(tab)) ?? false;
}
