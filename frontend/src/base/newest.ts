/** Requests of which only the newest counts, and a next try later. */
export class Newest {
  private current: AbortController | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Abort the request before and begin another. */
  begin(): AbortSignal {
    this.stop();
    this.current = new AbortController();
    return this.current.signal;
  }

  /** Whether no other request has begun since, and this one was not stopped. */
  is(signal: AbortSignal): boolean {
    return this.current?.signal === signal;
  }

  /** Try again after a while, unless another request begins first. */
  later(again: () => Promise<void>, afterMs: number): void {
    this.timer = setTimeout(() => void again(), afterMs);
  }

  /** Abort the request, and do not try again. */
  stop(): void {
    clearTimeout(this.timer);
    this.current?.abort();
    this.current = null;
  }
}
