import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { effectScope } from "vue";
import type { Notice } from "@/api/types";
import { hear, listen } from "./notices";

class Stream {
  static CLOSED = 2;
  static opened: Stream[] = [];
  readyState = 1;
  onopen = (): void => undefined;
  onmessage: (event: { data: string }) => void = () => undefined;
  onerror = (): void => undefined;

  constructor(readonly address: string) {
    Stream.opened.push(this);
  }

  close(): void {
    this.readyState = Stream.CLOSED;
  }
}

const page = { visibilityState: "visible", turned: (): void => undefined };
const heard: (Notice | null)[] = [];

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("EventSource", Stream);
  vi.stubGlobal("document", {
    get visibilityState() {
      return page.visibilityState;
    },
    addEventListener: (_: string, turned: () => void) => (page.turned = turned),
  });
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const look = (how: string): void => {
  page.visibilityState = how;
  page.turned();
};

describe("what others save", () => {
  it("is heard while the page is looked at, over one connection, opened again when it is refused", () => {
    const scope = effectScope();
    scope.run(() => hear((notice) => heard.push(notice)));
    listen();
    look("visible");
    expect(Stream.opened.map((one) => one.address)).toEqual(["/api/notices"]);
    const notice: Notice = { what: "order", id: "one", number: 3 };
    Stream.opened[0]?.onopen();
    Stream.opened[0]?.onmessage({ data: JSON.stringify(notice) });
    expect(heard).toEqual([null, notice]);

    look("hidden");
    expect(Stream.opened[0]?.readyState).toBe(Stream.CLOSED);
    look("visible");
    expect(Stream.opened).toHaveLength(2);

    const [, second] = Stream.opened;
    second?.onerror();
    vi.advanceTimersByTime(60_000);
    expect(Stream.opened).toHaveLength(2);
    second?.close();
    second?.onerror();
    vi.advanceTimersByTime(2_000);
    expect(Stream.opened).toHaveLength(2);
    vi.advanceTimersByTime(2_000);
    expect(Stream.opened).toHaveLength(3);

    scope.stop();
    Stream.opened[2]?.onopen();
    expect(heard).toHaveLength(2);
  });
});
