/** What this lens writes beside the drawing: the height of every tier. */
import { type Notes, outside } from "@/drawing/annotations";

export const notes: Notes = (plan) =>
  plan.tiers.map((planned, index) => ({
    label: "high",
    figure: planned.stack.height,
    mark: "height",
    box: outside(plan, index),
    tier: index,
  }));
