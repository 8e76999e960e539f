import "@fontsource-variable/fraunces/index.css";
import "@fontsource-variable/instrument-sans/index.css";
import "./style.css";
import "./ui/fields.css";
import { createPinia } from "pinia";
import { createApp } from "vue";
import App from "./App.vue";
import { router } from "./router";
import { mishap } from "@/api/mishap";
import { listen } from "@/kitchen/notices";

const app = createApp(App);
app.config.errorHandler = (error) => {
  mishap(error);
  throw error;
};
window.addEventListener("unhandledrejection", (event) => mishap(event.reason));
app.use(createPinia()).use(router).mount("#app");
listen();
