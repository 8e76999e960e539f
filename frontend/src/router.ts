import { createRouter, createWebHistory } from "vue-router";

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: "/", name: "shelf", component: () => import("@/views/shelf/ShelfView.vue") },
    {
      path: "/orders/:id/:lens?",
      name: "order",
      component: () => import("@/views/order/OrderView.vue"),
      props: true,
    },
    { path: "/pantry", name: "pantry", component: () => import("@/views/pantry/PantryView.vue") },
    { path: "/week", name: "week", component: () => import("@/views/week/WeekView.vue") },
    { path: "/places", name: "places", component: () => import("@/views/places/PlacesView.vue") },
    { path: "/usual", name: "usual", component: () => import("@/views/usual/UsualView.vue") },
    { path: "/:rest(.*)*", redirect: "/" },
  ],
});
