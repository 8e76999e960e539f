/** Where a rule or a value comes from, as people read it. */
import type { Schemas } from "@/api/client";

export const ORIGINS: Record<Schemas["Source"]["origin"], string> = {
  definition: "By definition",
  geometry: "Geometry",
  published: "Published",
  "common practice": "Common practice in the trade",
  "from memory": "From memory: check it against your own kitchen",
  "this kitchen": "This kitchen's own practice",
};
