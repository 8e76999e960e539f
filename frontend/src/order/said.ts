/** A line that is said of a cake: what it means, and what the cake comes to. */
import { answered, api, type Schemas } from "@/api/client";
import type { Document, Kit, Plan } from "@/api/types";
import type { LengthUnit } from "@/base/units";

export type Heard = Omit<Schemas["LineRead"], "design"> & { design: Document["design"] | null };

/** What a line says over a document. Throws Unreachable or Refused. */
export async function hear(text: string, unit: LengthUnit, document: Document): Promise<Heard> {
  return (await answered(api.POST("/api/line/read", { body: { text, unit, document } }))) as Heard;
}

/** What a design comes to; nothing where it cannot be planned, which is told when it is taken. */
export async function sketched(document: Document, kit?: Kit): Promise<Plan | null> {
  try {
    return (await answered(api.POST("/api/plan", { body: { document, kit } }))) as Plan;
  } catch {
    return null;
  }
}
