import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Pantry } from "@/api/types";

vi.hoisted(() => {
  vi.stubGlobal("location", { origin: "http://kitchen.test" });
  vi.stubGlobal("localStorage", { getItem: () => null, setItem: () => null, removeItem: () => null });
});

import { LeftAsItIs, takeOut } from "./kept";
import { isOwnKey, ownKey, sourceWords, usePantry } from "./pantry";

const empty = { larder: [], packs: [], recipes: [], media: [], ingredients: [], chosen: {} };
const pantryOf = (amount: number) =>
  ({
    ...empty,
    larder: [{ item: "butter", amount, unit: "g" }],
    terms: { currency: "EUR" },
  }) as unknown as Pantry;

/** A kitchen's server that keeps one pantry, refuses a stale save, and can be told to refuse any. */
class Server {
  number = 1;
  pantry = pantryOf(100);
  refuse: object | null = null;
  down = false;
  restless = false;

  answer = async (request: Request | string, init?: RequestInit): Promise<Response> => {
    if (this.down) throw new TypeError("no connection");
    const method = typeof request === "string" ? init?.method : request.method;
    if (this.restless && method === "PUT") this.number += 1;
    if (method === "GET") return this.shown();
    if (this.refuse) return Response.json(this.refuse, { status: 422 });
    if (typeof request === "string") this.pantry = pantryOf(900);
    else {
      const body = (await request.json()) as { began_from: number; pantry: Pantry };
      if (body.began_from !== this.number)
        return Response.json({ status: 409, detail: "Saved elsewhere.", errors: [] }, { status: 409 });
      this.pantry = body.pantry;
    }
    this.number += 1;
    return this.shown();
  };

  shown(): Response {
    return Response.json({
      number: this.number,
      pantry: this.pantry,
      ingredients: [{ key: "butter", name: "Butter" }],
      media: [],
      recipes: [{ key: "comb", name: "Comb cake", cake: true }],
      in_use: {},
      labels: { board_254: { name: "Cake board", size: { value: 254, unit: "mm" }, length: null } },
    });
  }
}

let server: Server;
beforeEach(() => {
  server = new Server();
  vi.stubGlobal("fetch", server.answer);
  setActivePinia(createPinia());
});

async function opened() {
  const pantry = usePantry();
  await pantry.open();
  return pantry;
}

const stock = () => usePantry().pantry?.larder[0]?.amount;
const set = (amount: number) => (kept: Pantry) => {
  kept.larder = [{ item: "butter", amount, unit: "g" }];
};

describe("the pantry", () => {
  it("calls things by their names, and goods by name and size", async () => {
    const pantry = await opened();
    expect(pantry.nameOf("butter")).toBe("Butter");
    expect(pantry.nameOf("board_254")).toBe("Cake board 10 in");
    expect(pantry.cakes.map((cake) => cake.name)).toEqual(["Comb cake"]);
  });

  it("keeps one change after another, and undoes and redoes them", async () => {
    const pantry = await opened();
    expect(await Promise.all([pantry.change(set(200)), pantry.change(set(300))])).toEqual([true, true]);
    expect([stock(), server.number]).toEqual([300, 3]);
    await pantry.undo();
    await pantry.undo();
    expect([stock(), pantry.canUndo, pantry.canRedo]).toEqual([100, false, true]);
    await pantry.redo();
    expect([stock(), server.pantry.larder[0]?.amount]).toEqual([200, 200]);
  });

  it("keeps nothing, and remembers nothing to undo, where there was nothing left to change", async () => {
    const pantry = await opened();
    const nothing = () => {
      throw new LeftAsItIs();
    };
    expect(await pantry.change(nothing)).toBe(false);
    expect([pantry.canUndo, pantry.trouble, server.number]).toEqual([false, "", 1]);
  });

  it("undoes a file that was taken over", async () => {
    const pantry = await opened();
    expect(await pantry.read("larder", new File(["item"], "larder.csv"))).toBe(true);
    expect(stock()).toBe(900);
    await pantry.undo();
    expect(stock()).toBe(100);
  });

  it("says what is wrong, changes nothing, and forgets it when it is put right", async () => {
    const pantry = await opened();
    const errors = [{ pointer: "#/pantry/larder/0/amount", field: "x", message: "should be 0 or more" }];
    server.refuse = { status: 422, title: "", detail: "It cannot be kept.", errors };
    expect(await pantry.change(set(-1))).toBe(false);
    expect(pantry.trouble).toBe("Butter: the amount should be 0 or more.");
    expect([stock(), pantry.canUndo]).toEqual([100, false]);
    pantry.forgive();
    expect([pantry.trouble, pantry.complaints.length]).toEqual(["", 0]);
  });

  it("makes a change again to what somebody else kept meanwhile, so that neither is lost", async () => {
    const pantry = await opened();
    await pantry.change(set(200));
    [server.number, server.pantry] = [7, { ...pantryOf(500), chosen: { cream: "theirs" } }];
    expect(await pantry.change(set(300))).toBe(true);
    expect([stock(), server.pantry.chosen, pantry.joined]).toEqual([300, { cream: "theirs" }, true]);
    await pantry.undo();
    expect([stock(), server.pantry.chosen, pantry.canUndo]).toEqual([500, { cream: "theirs" }, false]);
  });

  it("does not undo what somebody else did", async () => {
    const pantry = await opened();
    await pantry.change(set(200));
    [server.number, server.pantry] = [7, pantryOf(500)];
    expect(await pantry.undo()).toBe(false);
    expect(pantry.trouble).toContain("Somebody else changed this meanwhile");
    expect([stock(), server.pantry.larder[0]?.amount, pantry.canUndo]).toEqual([500, 500, false]);
  });

  it("gives up on a server that never stops changing, and says what the server says", async () => {
    const pantry = await opened();
    server.restless = true;
    expect(await pantry.change(set(300))).toBe(false);
    expect([pantry.trouble, stock()]).toEqual(["Saved elsewhere.", 100]);
  });

  it("says when the server cannot be reached", async () => {
    const pantry = await opened();
    server.down = true;
    expect(await pantry.change(set(300))).toBe(false);
    expect(pantry.trouble).toContain("cannot be reached");
    expect(stock()).toBe(100);
  });

  it("takes a line out once, however often that is asked", async () => {
    const pantry = await opened();
    const out = (kept: Pantry) => takeOut(kept.larder, (one) => one.item === "butter");
    expect(await Promise.all([pantry.change(out), pantry.change(out)])).toEqual([true, false]);
    expect([server.pantry.larder, pantry.trouble]).toEqual([[], ""]);
  });

  it("calls no two things of ours alike, whoever begins them, and by keys that can be kept", () => {
    const keys = Array.from({ length: 200 }, ownKey);
    expect(new Set(keys).size).toBe(200);
    expect(keys.filter((key) => !/^[a-z][a-z0-9_]{0,39}$/.test(key) || !isOwnKey(key))).toEqual([]);
    expect(isOwnKey("meringue_buttercream")).toBe(false);
  });

  it("says where a density comes from", () => {
    expect(sourceWords({ origin: "this kitchen", reference: "" })).toBe("as you weighed it");
    expect(sourceWords({ origin: "from memory", reference: "" })).toBe("from memory");
    expect(sourceWords({ origin: "published", reference: "a table" })).toBe("published: a table");
  });
});
