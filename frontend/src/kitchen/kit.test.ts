import { createPinia, disposePinia, setActivePinia, type Pinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Kit } from "@/api/types";

vi.hoisted(() => {
  vi.stubGlobal("location", { origin: "http://kitchen.test" });
  vi.stubGlobal("localStorage", { getItem: () => null, setItem: () => null, removeItem: () => null });
});

import { useHandbook } from "./handbook";
import { useKit } from "./kit";
import { tell } from "./notices";

const owned = (...discs_mm: number[]) => ({ discs_mm, sheets: [] }) as unknown as Kit;
const server = { number: 4, kit: owned(203), down: false, asked: 0, after: (): void => undefined };

async function answer(request: Request): Promise<Response> {
  if (server.down) throw new TypeError("no connection");
  if (request.method === "PUT") {
    const body = (await request.json()) as { began_from: number; kit: Kit };
    if (body.began_from !== server.number)
      return Response.json({ status: 409, detail: "Saved elsewhere.", errors: [] }, { status: 409 });
    [server.number, server.kit] = [server.number + 1, body.kit];
    const kept = Response.json({ number: server.number, kit: server.kit });
    server.after();
    return kept;
  }
  server.asked += 1;
  return Response.json({ number: server.number, kit: server.kit });
}

let pinia: Pinia;

beforeEach(() => {
  Object.assign(server, { number: 4, kit: owned(203), down: false, asked: 0, after: () => undefined });
  vi.stubGlobal("fetch", answer);
  pinia = createPinia();
  setActivePinia(pinia);
  useHandbook().book = { kit: owned(150, 180) } as never;
});

afterEach(() => disposePinia(pinia));

const another = (mm: number) => (kit: Kit) => void kit.discs_mm.push(mm);

describe("what the kitchen owns", () => {
  it("is asked for once, and changed, undone and redone", async () => {
    const kit = useKit();
    await kit.ready();
    await kit.ready();
    expect([server.asked, kit.kit]).toEqual([1, owned(203)]);
    await kit.change(another(254));
    expect([server.kit, kit.canUndo]).toEqual([owned(203, 254), true]);
    await kit.undo();
    expect(server.kit).toEqual(owned(203));
    await kit.redo();
    expect(server.kit).toEqual(owned(203, 254));
  });

  it("keeps two people's changes", async () => {
    const kit = useKit();
    await kit.ready();
    [server.number, server.kit] = [9, owned(203, 215)];
    await kit.change(another(254));
    expect([server.kit, kit.kit]).toEqual([owned(203, 215, 254), owned(203, 215, 254)]);
  });

  it("shows what another screen kept, at once or once a change of its own is kept", async () => {
    const kit = useKit();
    await kit.ready();
    const heard = (number: number): void => tell({ what: "kit", id: "", number });
    [server.number, server.kit] = [5, owned(215)];
    heard(5);
    await vi.waitFor(() => expect(kit.kit).toEqual(owned(215)));
    tell({ what: "pantry", id: "", number: 40 });
    heard(5);
    expect(server.asked).toBe(2);
    server.after = () => {
      heard(7);
      [server.number, server.kit] = [7, owned(300)];
    };
    await kit.change(another(254));
    await vi.waitFor(() => expect(kit.kit).toEqual(owned(300)));
  });

  it("is the usual set while it cannot be read, which never takes the place of what is owned", async () => {
    const kit = useKit();
    server.down = true;
    await kit.ready();
    expect([kit.kit, kit.trouble]).toEqual([owned(150, 180), expect.stringContaining("usual small kitchen")]);
    expect(await kit.change(another(254))).toBe(false);
    expect(kit.trouble).toContain("Nothing was changed");
    server.down = false;
    expect(await kit.change(another(254))).toBe(true);
    expect(server.kit).toEqual(owned(203, 254));
  });
});
