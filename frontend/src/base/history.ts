/** Undo and redo over whole documents: what was, what is undone, and nothing else. */

export class History<T> {
  private past: T[] = [];
  private future: T[] = [];

  constructor(private readonly depth = 200) {}

  get canUndo(): boolean {
    return this.past.length > 0;
  }

  get canRedo(): boolean {
    return this.future.length > 0;
  }

  /** The state that an undo would give back, and that a redo would; undefined when there is none. */
  get before(): T | undefined {
    return this.past.at(-1);
  }

  get after(): T | undefined {
    return this.future.at(-1);
  }

  /** Remember `before`, the state an edit has just replaced; what was undone can no longer be redone. */
  remember(before: T): void {
    this.past.push(before);
    if (this.past.length > this.depth) this.past.shift();
    this.future = [];
  }

  /** The state before `now`, which can then be redone; undefined when there is none. */
  undo(now: T): T | undefined {
    const before = this.past.pop();
    if (before !== undefined) this.future.push(now);
    return before;
  }

  /** Step back to a state from outside, such as an older revision, so that `now` can be redone. */
  stepBack(now: T): void {
    this.future.push(now);
  }

  /** The state that was undone last, or undefined. */
  redo(now: T): T | undefined {
    const after = this.future.pop();
    if (after !== undefined) this.past.push(now);
    return after;
  }
}
