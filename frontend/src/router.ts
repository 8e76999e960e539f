import { createRouter, createWebHistory } from "vue-router";
import { LENSES } from "./lenses/lenses";
import ShelfView from "./shelf/ShelfView.vue";

const lenses = LENSES.map((lens) => lens.name).join("|");

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: "/", name: "shelf", component: ShelfView },
    {
      path: `/orders/:id/:lens(${lenses})?`,
      name: "order",
      component: () => import("./order/OrderView.vue"),
      props: true,
    },
    { path: "/pantry", name: "pantry", component: () => import("./pantry/PantryView.vue") },
    { path: "/usual", name: "usual", component: () => import("./usual/UsualView.vue") },
    { path: "/:rest(.*)*", redirect: "/" },
  ],
});
