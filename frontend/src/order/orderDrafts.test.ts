import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Document } from "@/api/types";
import { keep } from "@/base/browser";
import { aKitchen, drafted, ID, made, opened, reload, rename, type Server } from "./aKitchen";
import { findDrafts } from "./drafts";

let server: Server;
const kitchen = aKitchen();
beforeEach(() => (server = kitchen.get()));

/** Leave a draft behind, as a tab that was closed. */
function leave(tab: string, document: Document, beganFrom = 1): void {
  keep(`amber:draft:${ID}:${tab}`, JSON.stringify({ beganFrom, document }));
}

describe("the drafts of an order", () => {
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
});
