/** What of an order's page is loaded when it is first wanted. */
import type { Component } from "vue";
import { later } from "@/ui/later";
import type { Dialog } from "@/ui/opened";

export const OrderMenu = later(() => import("./OrderMenu.vue"));
export const OrderWorking = later(() => import("./OrderWorking.vue"));
export const StaleDialog = later(() => import("./StaleDialog.vue"));
export const UnreadOrder = later(() => import("./UnreadOrder.vue"));

/** The dialogs by their names in the address. */
export const DIALOGS: Partial<Record<Dialog, Component>> = {
  versions: later(() => import("./VersionsDialog.vue")),
  keys: later(() => import("./KeysDialog.vue")),
  words: later(() => import("@/drawing/WordsDialog.vue")),
  kit: later(() => import("./KitDialog.vue")),
  line: later(() => import("./QuickLine.vue")),
};
