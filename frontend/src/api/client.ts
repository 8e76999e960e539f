/** The API, typed from its own OpenAPI document. */
import createClient from "openapi-fetch";
import { keep, recall } from "@/base/browser";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Problem = Schemas["Problem"];
export type Complaint = Schemas["Complaint"];

const NAME = "amber:browser";

/** A name this browser makes up for itself. The server uses it to be fair to every client. */
function ownName(): string {
  const said = recall(NAME);
  if (said && /^[0-9a-f]{32}$/.test(said)) return said;
  const made = Array.from({ length: 32 }, () => Math.floor(Math.random() * 16).toString(16)).join("");
  keep(NAME, made);
  return made;
}

/** What every request carries: another site's page cannot send it, and the server changes nothing without it. */
export const OURS = { "X-Amber-Spread": ownName() };

export const api = createClient<paths>({
  baseUrl: location.origin,
  headers: OURS,
  fetch: (request) => fetch(request),
});

/** The server could not be reached, or could not reach its order book. */
export class Unreachable extends Error {}

/** The server answered with a problem: `problem` says what it was. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** Why a call failed, as the server says it; `otherwise` where it could not be asked. */
export function wordsOf(error: unknown, otherwise: string): string {
  return error instanceof Refused ? error.problem.detail : otherwise;
}

/** Why a call was refused, field by field; `otherwise` where the server could not be asked, or could not answer. */
export function fieldWordsOf(error: unknown, otherwise: string): string {
  if (!(error instanceof Refused) || error.problem.status >= 500) return otherwise;
  return error.problem.errors.map((one) => `${one.field} ${one.message}.`).join(" ") || error.problem.detail;
}

/** A file as the body of a call, as it is. */
export function asIs(content: ArrayBuffer | string, type: string) {
  return {
    body: content as string,
    bodySerializer: (body: unknown) => body as string,
    headers: { "content-type": type },
  };
}

/** The problem type of an answer that is not ready yet. */
const BUSY = "/problems/busy";

/** Whether the answer is not ready yet: ask again. */
export function isBusy(error: unknown): error is Refused {
  return error instanceof Refused && error.problem.type === BUSY;
}

/** What an order is answered with that this version of the program cannot read. */
export const UNREAD = "/problems/unread";

/** What comes over the line. Throws Unreachable where nothing does, unless it was given up. */
export async function reached<T>(call: Promise<T>): Promise<T> {
  try {
    return await call;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new Unreachable("The kitchen's server cannot be reached.", { cause: error });
  }
}

/** The data of an API call. Throws Unreachable or Refused, so that no caller can overlook a failure. */
export async function answered<T>(call: Promise<Answer<T>>): Promise<T> {
  const answer = await reached(call);
  if (answer.data !== undefined) return answer.data;
  const problem = answer.error as Problem | undefined;
  if (answer.response.status >= 502 && problem?.type !== BUSY)
    throw new Unreachable("The order book cannot be reached.");
  if (problem?.detail) throw new Refused(problem);
  throw new Unreachable(`The server answered with status ${answer.response.status}.`);
}
