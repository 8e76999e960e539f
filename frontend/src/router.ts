import { createRouter, createWebHistory } from "vue-router";
import ShelfView from "./shelf/ShelfView.vue";

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: "/", name: "shelf", component: ShelfView },
    {
      path: "/orders/:id/:lens(brief|layers|coats|cover)?",
      name: "order",
      component: () => import("./order/OrderView.vue"),
      props: true,
    },
    { path: "/:rest(.*)*", redirect: "/" },
  ],
});
