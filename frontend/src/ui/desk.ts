/**
 * What the fields and figures of a page have in common, whatever page it is: which figure is pointed at, and what is
 * wrong with what was typed. Whoever keeps the document says what is wrong; fields and drawings light each other up.
 */
import { defineStore } from "pinia";
import { ref, shallowRef } from "vue";
import type { Complaint } from "@/api/client";

export const useDesk = defineStore("desk", () => {
  /** The id of the figure, or the place of the part, that is pointed at. */
  const lit = ref("");
  const complaints = shallowRef<Complaint[]>([]);

  /** What is wrong at a field, as a sentence; nothing where nothing is. */
  function complaintAt(pointer: string): string {
    const found = complaints.value.find((one) => one.pointer === pointer);
    return found ? `This ${found.message}.` : "";
  }

  /** Listeners for what lights up its figure or part while it is pointed at. */
  function lights(place: string): Record<"pointerenter" | "pointerleave", () => void> {
    return { pointerenter: () => (lit.value = place), pointerleave: () => (lit.value = "") };
  }

  return { lit, lights, complaints, complaintAt };
});
