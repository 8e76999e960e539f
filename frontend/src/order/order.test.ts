import { createPinia, disposePinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { reactive } from "vue";
import type { Document } from "@/api/types";

vi.hoisted(() => vi.stubGlobal("location", { origin: "http://kitchen.test" }));

import { tell } from "@/kitchen/notices";
import { keep, keysOf } from "@/base/browser";
import { draftAt, findDrafts } from "./drafts";
import { useDesk } from "@/ui/desk";
import { useOrder } from "./order";

const ID = "4a7c1d52-0000-4000-8000-000000000000";
const PLAN = { tiers: [], section: {}, checks: [], bowls: {} };
const made = (title: string, kind = "straight"): Document =>
  ({
    format: "amber-spread/3",
    title,
    design: { tiers: [{ tin_diameter_mm: 200, build: { kind } }], colours: [] },
  }) as unknown as Document;

/** A kitchen's server of one order, whose connection can be cut and whose answers can be refused. */
class Server {
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
      this.planned = (await request.clone().json()).document as Document;
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
      const body = await request.json();
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

let server: Server;
let pinia = createPinia();

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

async function opened() {
  const order = useOrder();
  await order.open(ID);
  return order;
}

/** The page is loaded, or loaded again. */
function reload(): void {
  disposePinia(pinia);
  pinia = createPinia();
  setActivePinia(pinia);
}

/** The titles of all drafts that this browser keeps. */
const drafted = (): unknown[] => keysOf("amber:draft:").map((key) => draftAt(key)?.document.title);

/** A draft as a tab that is open no longer left it. */
function leave(tab: string, document: Document, beganFrom = 1): void {
  keep(`amber:draft:${ID}:${tab}`, JSON.stringify({ beganFrom, document }));
}

const rename = (title: string) => (draft: Document) => {
  draft.title = title;
};

describe("an order on the bench", () => {
  it("says that its figures are behind while they are worked out, of the last edit alone", async () => {
    const order = useOrder();
    await order.open(ID);
    expect(order.behind).toBe(false);
    let done: () => void = () => undefined;
    server.slow = new Promise((resolve) => (done = resolve));
    order.edit((draft) => (draft.title = "Two"));
    order.edit((draft) => (draft.title = "Three"));
    await vi.advanceTimersByTimeAsync(50);
    expect(order.behind).toBe(true);
    done();
    await vi.advanceTimersByTimeAsync(50);
    expect(order.behind).toBe(false);
  });

  it("says which part of a carved cake is being worked out, and forgets it once that is done", async () => {
    const asked: string[] = [];
    let go: () => void = () => undefined;
    vi.stubGlobal("fetch", async (request: Request) => {
      if (!request.url.endsWith("/api/plan/parts")) return server.answer(request);
      asked.push(await request.text());
      const [first, last] = [{ part: "The layers", share: 0.2 }, { plan: PLAN }].map((line) =>
        new TextEncoder().encode(`${JSON.stringify(line)}\n`),
      );
      return new Response(
        new ReadableStream({
          start(controller) {
            controller.enqueue(first);
            go = () => {
              controller.enqueue(last);
              controller.close();
            };
          },
        }),
      );
    });
    server.document = made("Carved", "carved");
    const order = useOrder();
    const opened = order.open(ID);
    await vi.waitFor(() => {
      expect(order.part).toEqual({ part: "The layers", share: 0.2 });
    });
    expect(order.behind).toBe(true);
    go();
    await opened;
    expect(order.part).toBeNull();
    expect(order.behind).toBe(false);
    expect(order.plan).toEqual(PLAN);
    expect(asked.some((body) => body.includes('"carved"'))).toBe(true);
  });

  it("keeps an edit in the browser at once and saves it once the hands rest", async () => {
    const order = await opened();
    order.edit(rename("Two"));
    expect(order.status).toBe("editing");
    expect(drafted()).toEqual(["Two"]);
    order.edit(rename("Three"));
    await vi.advanceTimersByTimeAsync(2000);
    expect(order.status).toBe("saved");
    expect([server.saves, server.document.title, order.revision]).toEqual([1, "Three", 2]);
    expect(drafted()).toEqual([]);
  });

  it("saves to the server first, and says when this browser has no room for a draft", async () => {
    const order = await opened();
    vi.stubGlobal("localStorage", {
      getItem: () => null,
      setItem: () => {
        throw new DOMException("full", "QuotaExceededError");
      },
      removeItem: () => undefined,
    });
    order.edit(rename("Full"));
    expect([order.status, order.undrafted]).toEqual(["editing", true]);
    await vi.advanceTimersByTimeAsync(2000);
    expect([order.status, order.undrafted, server.document.title]).toEqual(["saved", false, "Full"]);
    server.down = true;
    order.edit(rename("Fuller"));
    await vi.advanceTimersByTimeAsync(2000);
    expect([order.status, order.undrafted]).toEqual(["unreachable", true]);
    server.down = false;
    await vi.advanceTimersByTimeAsync(7000);
    expect([order.status, server.document.title]).toEqual(["saved", "Fuller"]);
  });

  it("leaves a draft that it cannot read where it is, and says so", async () => {
    let order = await opened();
    server.down = true;
    order.edit(rename("From another day"));
    await vi.advanceTimersByTimeAsync(2000);
    order.close();
    server.down = false;
    server.unreadable = { status: 422, title: "", detail: "hat is not a field.", errors: [] };
    reload();
    order = await opened();
    expect(order.document?.title).toBe("One");
    expect(order.stray?.words).toBe("hat is not a field.");
    order.edit(rename("Two"));
    await vi.advanceTimersByTimeAsync(2000);
    expect([order.status, server.document.title]).toEqual(["saved", "Two"]);
    expect(drafted()).toEqual(["From another day"]);
    order.dropStray();
    expect(drafted()).toEqual([]);
  });

  it("takes up what each closed tab left behind, joined as two people's edits are", async () => {
    leave("one", made("Renamed in one tab"));
    leave("two", made("One", "domed"));
    server.joins = true;
    const order = await opened();
    await vi.advanceTimersByTimeAsync(9000);
    expect([order.status, server.document.title]).toEqual(["saved", "Renamed in one tab"]);
    expect(server.document.design.tiers[0]?.build.kind).toBe("domed");
    expect(drafted()).toEqual([]);
  });

  it("leaves the draft of a tab that is open to that tab", async () => {
    const held = [{ name: "amber-tab-open" }];
    vi.stubGlobal("navigator", {
      languages: ["en-GB"],
      locks: { request: () => undefined, query: () => Promise.resolve({ held }) },
    });
    leave("open", made("Still being typed"));
    leave("closed", made("Left behind"));
    expect((await findDrafts(ID)).map((draft) => draft.document.title)).toEqual(["Left behind"]);
    expect(drafted()).toHaveLength(2);
  });

  it("saves every two seconds while nobody stops editing", async () => {
    const order = await opened();
    for (let at = 1; at <= 60; at++) {
      order.edit(rename(`Cake ${at}`));
      await vi.advanceTimersByTimeAsync(150);
    }
    expect(server.saves).toBeGreaterThanOrEqual(4);
    await vi.advanceTimersByTimeAsync(2000);
    expect([order.status, server.document.title]).toEqual(["saved", "Cake 60"]);
  });

  it("says that the computer is busy, asks again less and less often, and shows the figures then", async () => {
    const order = await opened();
    const detail = "This computer is busy.";
    server.busy = { type: "/problems/busy", title: "", status: 503, detail, errors: [] };
    order.edit(rename("Two"));
    await vi.advanceTimersByTimeAsync(2000);
    expect([order.stillWorking, order.planUnreachable, order.status]).toEqual([detail, false, "saved"]);
    const before = server.plans;
    await vi.advanceTimersByTimeAsync(120000);
    expect(server.plans - before).toBeLessThan(8);
    server.busy = null;
    await vi.advanceTimersByTimeAsync(60000);
    expect([order.stillWorking, server.planned?.title]).toEqual(["", "Two"]);
  });

  it("goes on editing after an edit that put in something the screen watches", async () => {
    const order = await opened();
    const watched = reactive({ name: "amber", parts: [], marbled: false, hex: "#E3A63A" });
    order.edit((draft) => void draft.design.colours.push(watched));
    order.edit(rename("Two"));
    void order.undo();
    expect(order.document?.design.colours).toEqual([
      { name: "amber", parts: [], marbled: false, hex: "#E3A63A" },
    ]);
    expect(order.document?.title).toBe("One");
  });

  it("takes no notice of an edit that changes nothing", async () => {
    const order = await opened();
    order.edit(rename("One"));
    expect([order.status, order.canUndo]).toEqual(["saved", false]);
  });

  it("says when the connection is lost, keeps the edit, and saves when it is back", async () => {
    const order = await opened();
    server.down = true;
    order.edit(rename("In the cellar"));
    await vi.advanceTimersByTimeAsync(2000);
    expect([order.status, order.planUnreachable]).toEqual(["unreachable", true]);
    expect(drafted()).toEqual(["In the cellar"]);
    server.down = false;
    await vi.advanceTimersByTimeAsync(7000);
    expect([order.status, order.planUnreachable, server.document.title]).toEqual([
      "saved",
      false,
      "In the cellar",
    ]);
  });

  it("takes up an edit the server never got when the order is opened again", async () => {
    const order = await opened();
    server.down = true;
    order.edit(rename("Unsent"));
    await vi.advanceTimersByTimeAsync(1500);
    server.down = false;
    reload();
    const again = await opened();
    expect(again.document?.title).toBe("Unsent");
    await vi.advanceTimersByTimeAsync(4000);
    expect(server.document.title).toBe("Unsent");
  });

  it("asks which to go on with when another save came first, and keeps mine when asked to", async () => {
    const order = await opened();
    server.refuse = { status: 409, title: "x", detail: "x", errors: [], current: 2, aside: 3 };
    order.edit(rename("Mine"));
    await vi.advanceTimersByTimeAsync(1500);
    expect([order.status, order.stale]).toEqual(["stale", { current: 2, aside: 3, differing: [] }]);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(server.saves).toBe(0);
    server.refuse = null;
    server.document = made("Theirs");
    server.revision = 2;
    await order.settle(true);
    await vi.advanceTimersByTimeAsync(1500);
    expect([order.status, server.document.title, order.revision]).toEqual(["saved", "Mine", 3]);
    await order.undo();
    expect(order.document?.title).toBe("Theirs");
  });

  it("shows what was saved on another screen, and undoes it like any other step", async () => {
    const order = await opened();
    server.savedElsewhere("Theirs");
    await vi.advanceTimersByTimeAsync(10);
    expect([order.document?.title, order.revision, order.status]).toEqual(["Theirs", 2, "saved"]);
    expect([order.fromElsewhere, server.saves]).toEqual([true, 0]);
    await order.undo();
    await vi.advanceTimersByTimeAsync(2000);
    expect([order.document?.title, order.fromElsewhere, server.document.title]).toEqual([
      "One",
      false,
      "One",
    ]);
  });

  it("is left as it is by another screen's save while it is edited, and by saves of other orders", async () => {
    const order = await opened();
    tell({ what: "order", id: "another", number: 9 });
    tell({ what: "kit", id: "", number: 9 });
    order.edit(rename("Mine"));
    server.savedElsewhere("Theirs");
    await vi.advanceTimersByTimeAsync(10);
    expect([order.document?.title, order.revision]).toEqual(["Mine", 1]);
  });

  it("asks anew when saves may have been missed, and finds one that came while it was saving", async () => {
    const order = await opened();
    [server.revision, server.document] = [4, made("While nobody looked")];
    tell(null);
    await vi.advanceTimersByTimeAsync(10);
    expect([order.document?.title, order.revision]).toEqual(["While nobody looked", 4]);
    order.edit(rename("Mine"));
    server.afterSave = () => {
      tell({ what: "order", id: ID, number: 6 });
      [server.revision, server.document] = [6, made("Just after")];
    };
    await order.save();
    await vi.advanceTimersByTimeAsync(10);
    expect([order.document?.title, order.revision]).toEqual(["Just after", 6]);
  });

  it("is planned anew when what the kitchen owns is another, and not when it is the same", async () => {
    await opened();
    const before = server.plans;
    tell({ what: "kit", id: "", number: 1 });
    await vi.advanceTimersByTimeAsync(10);
    expect(server.plans).toBe(before);
    server.kit = 2;
    tell({ what: "kit", id: "", number: 2 });
    await vi.advanceTimersByTimeAsync(10);
    expect(server.plans).toBe(before + 1);
  });

  it("points at the field the server will not take", async () => {
    const order = await opened();
    const errors = [{ pointer: "#/document/title", field: "document.title", message: "should not be empty" }];
    server.refuse = { status: 422, title: "x", detail: "x", errors };
    order.edit(rename("!"));
    await vi.advanceTimersByTimeAsync(1500);
    expect(order.status).toBe("refused");
    expect(useDesk().complaintAt("#/title")).toBe("This should not be empty.");
    expect(useDesk().complaintAt("#/due")).toBe("");
  });

  it("undoes and redoes whole steps", async () => {
    const order = await opened();
    order.edit(rename("Two"));
    order.edit(rename("Three"));
    await order.undo();
    expect([order.document?.title, order.canRedo]).toEqual(["Two", true]);
    await order.undo();
    expect(order.document?.title).toBe("One");
    order.redo();
    order.redo();
    expect([order.document?.title, order.canRedo]).toEqual(["Three", false]);
  });

  it("makes a change to every tier where that is asked for, says to how many, and takes them all back at once", async () => {
    server.document = made("Tall");
    const [first] = server.document.design.tiers;
    for (const tin_diameter_mm of [150, 100])
      server.document.design.tiers.push({ ...first, tin_diameter_mm } as never);
    const order = await opened();
    const sizes = () => order.document?.design.tiers.map((tier) => tier.tin_diameter_mm);
    order.editTier(1, (tier) => (tier.tin_diameter_mm = 160));
    expect([sizes(), order.changedTogether]).toEqual([[200, 160, 100], 0]);
    order.setEvery(true);
    order.editTier(1, (tier) => (tier.tin_diameter_mm = 200));
    expect([sizes(), order.changedTogether]).toEqual([[200, 200, 200], 2]);
    await order.undo();
    expect([sizes(), order.changedTogether]).toEqual([[200, 160, 100], 0]);
    await vi.advanceTimersByTimeAsync(1);
    order.tryTier(2, (tier) => (tier.tin_diameter_mm = 90));
    await vi.advanceTimersByTimeAsync(1);
    const tried = server.planned as Document | null;
    expect(tried?.design.tiers.map((tier) => tier.tin_diameter_mm)).toEqual([90, 90, 90]);
    expect(sizes()).toEqual([200, 160, 100]);
    order.editTier(0, (tier, _, at) => (tier.tin_diameter_mm = 300 - at));
    order.edit((draft) => (draft.title = "Taller"));
    expect([sizes(), order.changedTogether]).toEqual([[300, 299, 298], 0]);
  });

  /** A server that refuses what began from another revision than its own. */
  function strict(): void {
    const answer = server.answer;
    server.answer = async (request) => {
      if (request.method !== "PUT") return answer(request);
      const { began_from } = await request.clone().json();
      if (began_from === server.revision) return answer(request);
      const problem = {
        title: "x",
        detail: "x",
        errors: [],
        current: server.revision,
        aside: 9,
        status: 409,
      };
      return Response.json(problem, { status: 409 });
    };
  }

  it("puts its own change together with one saved elsewhere of another place, and saves both", async () => {
    const order = await opened();
    strict();
    order.editTier(0, (tier) => (tier.tin_diameter_mm = 250));
    server.revision = 2;
    server.document = made("Theirs");
    await vi.advanceTimersByTimeAsync(3000);
    expect([order.status, order.stale, order.withTheirs]).toEqual(["saved", null, true]);
    expect(server.document.title).toBe("Theirs");
    expect(server.document.design.tiers[0]?.tin_diameter_mm).toBe(250);
    order.edit((draft) => (draft.title = "Ours"));
    expect(order.withTheirs).toBe(false);
  });

  it("asks which to go on with where both changed the same, and says what each has there", async () => {
    const order = await opened();
    strict();
    order.edit((draft) => (draft.title = "Mine"));
    server.revision = 2;
    server.document = made("Theirs");
    await vi.advanceTimersByTimeAsync(3000);
    expect(order.status).toBe("stale");
    expect(order.stale?.differing).toEqual([{ path: ["title"], mine: "Mine", theirs: "Theirs" }]);
    await order.settle(true);
    await vi.advanceTimersByTimeAsync(3000);
    expect([order.status, server.document.title]).toEqual(["saved", "Mine"]);
  });

  it("is titled by its tiers until somebody types a title", async () => {
    server.document = made("20 cm round");
    const order = useOrder();
    await order.open(ID);
    order.edit((draft) =>
      draft.design.tiers.push({ tin_diameter_mm: 150, build: { kind: "straight" } } as never),
    );
    expect(order.document?.title).toBe("20/15 cm round");
    order.edit((draft) => (draft.title = "For the fair"));
    order.edit((draft) => draft.design.tiers.pop());
    expect(order.document?.title).toBe("For the fair");
  });
});
