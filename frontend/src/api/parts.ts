/** An answer that is told as it is worked out: each part as it begins, and last what came of it. */
import { type Problem, reached, Refused, Unreachable } from "./client";

/** A part of the work in words, and what share of all of it lies before that. */
export interface Part {
  part: string;
  share: number;
}

/** The lines of a stream of text as each is whole. */
export async function* linesOf(stream: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = stream.getReader();
  const decoder = new TextDecoder();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    rest += decoder.decode(value, { stream: !done });
    const lines = rest.split("\n");
    rest = done ? "" : (lines.pop() ?? "");
    for (const line of lines) if (line) yield line;
    if (done) return;
  }
}

/**
 * What comes last of a stream, in the line called `name`, its parts told on the way. Throws Unreachable or Refused, as
 * every call does.
 */
export async function lastOf<T, P = Part>(
  stream: ReadableStream<Uint8Array> | null,
  heard: (part: P) => void,
  name = "plan",
): Promise<T> {
  const lines = stream && linesOf(stream);
  for (;;) {
    const next = lines && (await reached(lines.next()));
    if (!next || next.done) throw new Unreachable("The server ended before it had answered.");
    const line = JSON.parse(next.value) as Record<string, unknown>;
    if (name in line) return line[name] as T;
    if ("problem" in line) throw new Refused(line.problem as Problem);
    heard(line as P);
  }
}
