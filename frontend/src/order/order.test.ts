import { beforeEach, describe, expect, it, vi } from "vitest";
import { reactive } from "vue";
import type { Document } from "@/api/types";
import { tell } from "@/kitchen/notices";
import { useDesk } from "@/ui/desk";
import { aKitchen, drafted, ID, made, opened, PLAN, rename, type Server } from "./aKitchen";
import { useOrder } from "./order";

let server: Server;
const kitchen = aKitchen();
beforeEach(() => (server = kitchen.get()));

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

  it("asks for a working of the plan on screen, not of an edit that is not planned yet", async () => {
    const order = await opened();
    const asked: unknown[] = [];
    vi.stubGlobal("fetch", async (request: Request) => {
      if (!request.url.endsWith("/api/plan/figure")) return server.answer(request);
      asked.push(await request.json());
      return Response.json({ id: "stack.height", given: { layers: { value: 3, unit: "each" } } });
    });
    server.slow = new Promise(() => undefined);
    order.edit(rename("Two"));
    const found = await order.workingOf("stack.height");
    expect(found.given).toEqual({ layers: { value: 3, unit: "each" } });
    expect(asked).toMatchObject([{ figure: "stack.height", document: { title: "One" } }]);
  });

  it("plans a value once if you try it and then keep it, and plans nothing when you undo", async () => {
    const order = await opened();
    expect(server.plans).toBe(1);
    order.tryOut(rename("Two"));
    await vi.advanceTimersByTimeAsync(50);
    expect([server.plans, order.plan]).toEqual([2, PLAN]);
    order.edit(rename("Two"));
    await vi.advanceTimersByTimeAsync(50);
    expect([server.plans, order.behind, server.planned?.title]).toEqual([2, false, "Two"]);
    await order.undo();
    await vi.advanceTimersByTimeAsync(50);
    expect([server.plans, order.document?.title]).toEqual([2, "One"]);
    for (const title of ["Three", "Four", "Five", "Six"]) {
      order.edit(rename(title));
      await vi.advanceTimersByTimeAsync(50);
    }
    expect(server.plans).toBe(6);
    order.edit(rename("One"));
    await vi.advanceTimersByTimeAsync(50);
    expect(server.plans).toBe(7);
  });

  it("stops planning on request, until the next edit or until you start it again", async () => {
    server.slow = new Promise(() => undefined);
    const order = useOrder();
    void order.open(ID);
    await vi.waitFor(() => {
      expect(server.plans).toBe(1);
    });
    order.stopPlanning();
    expect([order.behind, order.stopped, order.plan]).toEqual([false, true, null]);
    await vi.advanceTimersByTimeAsync(120_000);
    expect(server.plans).toBe(1);
    server.slow = null;
    await order.replan();
    expect([order.stopped, order.plan]).toEqual([false, PLAN]);
    order.stopPlanning();
    order.edit(rename("Two"));
    await vi.advanceTimersByTimeAsync(3000);
    expect([order.stopped, order.status, server.document.title]).toEqual([false, "saved", "Two"]);
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
    const watched = reactive({ id: "1", name: "amber", parts: [], marbled: false, hex: "#E3A63A" });
    order.edit((draft) => void draft.design.colours.push(watched));
    order.edit(rename("Two"));
    void order.undo();
    expect(order.document?.design.colours).toEqual([
      { id: "1", name: "amber", parts: [], marbled: false, hex: "#E3A63A" },
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
      server.document.design.tiers.push({ ...first, id: `t${tin_diameter_mm}`, tin_diameter_mm } as never);
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

  it("keeps the same tier selected when somebody else moves it, and follows a colour that they renamed", async () => {
    const wearing = (title: string, colours: string[], ...tiers: [string, string | null][]): Document => {
      const document = made(title);
      const [tier] = document.design.tiers;
      const rest = { layers: {}, filling: { kind: "plain" }, crumb: {}, cover: { kind: "none" } };
      document.design.tiers = tiers.map(([id, colour]) => ({
        ...tier,
        ...rest,
        id,
        final: { colour },
      })) as never;
      document.design.colours = colours.map((name) => ({
        id: "c",
        name,
        hex: "#E3A63A",
        parts: [],
      })) as never;
      return document;
    };
    server.document = wearing("One", ["honey"], ["a", null], ["b", null]);
    const order = await opened();
    strict();
    order.step(1);
    order.editTier(0, (tier) => Object.assign(tier.final, { colour: "honey" }));
    server.revision = 2;
    server.document = wearing("One", ["amber"], ["b", null], ["a", null]);
    await vi.advanceTimersByTimeAsync(3000);
    expect(order.status).toBe("saved");
    const { tiers, colours } = server.document.design;
    expect(tiers.map((tier) => [tier.id, (tier.final as { colour: string }).colour])).toEqual([
      ["b", null],
      ["a", "amber"],
    ]);
    expect(colours.map((colour) => colour.name)).toEqual(["amber"]);
    expect([order.tier, order.tierId]).toEqual([0, "b"]);
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
