/** A kitchen's server of one order and a browser's storage, for the tests of an open order. */
import { createPinia, disposePinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, vi } from "vitest";
import type { Document } from "@/api/types";
import { keysOf } from "@/base/browser";
import { tell } from "@/kitchen/notices";
import { draftAt } from "./drafts";
import { useOrder } from "./order";

export const ID = "4a7c1d52-0000-4000-8000-000000000000";
export const PLAN = { tiers: [], section: {}, checks: [], bowls: {} };
export const made = (title: string, kind = "straight"): Document =>
  ({
    format: "amber-spread/5",
    title,
    design: { tiers: [{ id: "1", tin_diameter_mm: 200, build: { kind } }], colours: [] },
  }) as unknown as Document;

/** What a plan or a save carries. */
interface Sent {
  document: Document;
  began_from: number;
}

/** A kitchen's server of one order, whose connection can be cut and whose answers can be refused. */
export class Server {
  revision = 1;
  document = made("One");
  saves = 0;
  plans = 0;
  planned: Document | null = null;
  slow: Promise<void> | null = null;
  busy: unknown = null;
  /** Whether it refuses a save that began from another revision, and knows every revision there was. */
  joins = false;
  revisions = [this.document];
  afterSave: () => void = () => undefined;
  kit = 1;
  down = false;
  refuse: unknown = null;
  unreadable: unknown = null;

  /** Somebody saves on another screen. */
  savedElsewhere(title: string): void {
    this.revision += 1;
    this.document = made(title);
    tell({ what: "order", id: ID, number: this.revision });
  }

  answer = async (request: Request): Promise<Response> => {
    if (this.down) throw new TypeError("no connection");
    if (request.url.endsWith("/api/kit"))
      return Response.json({ number: this.kit, kit: { discs_mm: [this.kit] }, unread: "" });
    if (request.url.endsWith("/api/plan/parts")) {
      this.plans += 1;
      this.planned = ((await request.clone().json()) as Sent).document;
      await this.slow;
      if (this.busy) return new Response(`${JSON.stringify({ problem: this.busy })}\n`);
      return new Response(`${JSON.stringify({ plan: PLAN })}\n`);
    }
    if (request.url.endsWith("/api/read")) {
      if (this.unreadable) return Response.json(this.unreadable, { status: 422 });
      return Response.json(await request.json());
    }
    if (request.method === "PUT") {
      if (this.refuse)
        return Response.json(this.refuse, { status: (this.refuse as { status: number }).status });
      const body = (await request.json()) as Sent;
      if (this.joins && body.began_from !== this.revision)
        return Response.json(
          { title: "", status: 409, detail: "Saved elsewhere.", errors: [], current: this.revision },
          { status: 409 },
        );
      this.saves += 1;
      this.revision += 1;
      this.document = body.document;
      this.revisions.push(this.document);
    }
    const number = /revisions\/(\d+)$/.exec(request.url)?.[1];
    if (this.joins && number) return Response.json(this.revisions[Number(number) - 1]);
    const { revision, document } = this;
    if (request.method === "PUT") this.afterSave();
    return Response.json({ id: ID, revision, saved_at: "2026-11-24T10:00:00Z", archived: false, document });
  };
}

let pinia = createPinia();

/** A page over a new server before each test; `get` returns the server of the test. */
export function aKitchen(): { get: () => Server } {
  let server = new Server();
  beforeEach(() => {
    vi.useFakeTimers();
    const kept = new Map<string, string>();
    vi.stubGlobal("navigator", { languages: ["en-GB"] });
    vi.stubGlobal("localStorage", {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
      key: (at: number) => [...kept.keys()][at] ?? null,
      get length() {
        return kept.size;
      },
    });
    server = new Server();
    vi.stubGlobal("fetch", (request: Request) => server.answer(request));
    reload();
  });
  afterEach(() => {
    disposePinia(pinia);
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
  return { get: () => server };
}

/** Open the order. */
export async function opened() {
  const order = useOrder();
  await order.open(ID);
  return order;
}

/** Load the page again. */
export function reload(): void {
  disposePinia(pinia);
  pinia = createPinia();
  setActivePinia(pinia);
}

/** The titles of all drafts in this browser. */
export const drafted = (): unknown[] => keysOf("amber:draft:").map((key) => draftAt(key)?.document.title);

export const rename = (title: string) => (draft: Document) => {
  draft.title = title;
};
