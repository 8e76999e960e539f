import { describe, expect, it } from "vitest";
import { Refused, Unreachable } from "./client";
import { lastOf, linesOf, type Part } from "./parts";

/** A stream that comes in these pieces, however they were cut. */
function stream(...pieces: string[]): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    start(controller) {
      for (const piece of pieces) controller.enqueue(encoder.encode(piece));
      controller.close();
    },
  });
}

async function ask(...pieces: string[]): Promise<{ found: unknown; parts: Part[] }> {
  const parts: Part[] = [];
  const found = await lastOf(stream(...pieces), (part) => parts.push(part));
  return { found, parts };
}

describe("an answer in parts", () => {
  it("is cut into lines wherever its pieces end", async () => {
    const found: string[] = [];
    for await (const line of linesOf(stream("on", "e\ntwo\n", "\nthr", "ee"))) found.push(line);
    expect(found).toEqual(["one", "two", "three"]);
  });

  it("tells each part on the way to what came of it", async () => {
    const { found, parts } = await ask('{"part":"The layers","sha', 're":0.2}\n{"plan":{"a":1}}\n');
    expect(parts).toEqual([{ part: "The layers", share: 0.2 }]);
    expect(found).toEqual({ a: 1 });
  });

  it("is refused in the server's words", async () => {
    const problem = { title: "t", status: 422, detail: "too wide", errors: [] };
    await expect(ask(`${JSON.stringify({ problem })}\n`)).rejects.toThrow(Refused);
  });

  it("that ends before there is any is one that cannot be reached", async () => {
    await expect(ask('{"part":"The layers","share":0.2}\n')).rejects.toThrow(Unreachable);
  });
});
