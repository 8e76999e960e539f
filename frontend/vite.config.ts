import { fileURLToPath } from "node:url";
import vue from "@vitejs/plugin-vue";
import { ElementPlusResolver } from "unplugin-vue-components/resolvers";
import Components from "unplugin-vue-components/vite";
import { defineConfig } from "vitest/config";

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  plugins: [vue(), Components({ dirs: [], dts: false, resolvers: [ElementPlusResolver()] })],
  resolve: { alias: { "@": here("./src") } },
  server: { proxy: { "/api": "http://127.0.0.1:8765" } },
  // No component of ours or of Element Plus is written with Vue's options.
  define: { __VUE_OPTIONS_API__: "false" },
  build: {
    target: "es2022",
    // A browser that cannot load ahead loads the same a little later.
    modulePreload: { polyfill: false },
    // The tests add up what a first look loads.
    manifest: true,
    chunkSizeWarningLimit: 1500,
    rolldownOptions: { input: { main: here("./index.html"), docs: here("./api-docs.html") } },
  },
  test: { environment: "node", include: ["src/**/*.test.ts"], setupFiles: ["src/vitest.setup.ts"] },
});
