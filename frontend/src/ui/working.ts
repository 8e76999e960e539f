/** The working that is open: one figure at a time, beside the place it was asked from. */
import { shallowRef } from "vue";
import type { Figure } from "@/api/types";

export interface Asked {
  figure: Figure;
  label: string;
  from: HTMLElement;
}

export const asked = shallowRef<Asked | null>(null);

export function showWorking(figure: Figure, label: string, from: HTMLElement): void {
  asked.value = asked.value?.figure.id === figure.id ? null : { figure, label, from };
}

export function hideWorking(): void {
  asked.value?.from.focus();
  asked.value = null;
}
