import { svelte } from "@sveltejs/vite-plugin-svelte";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vitest/config";

// `npm run dev` serves the page with reloading beside a running `jettyfog serve`.
const backend = "http://127.0.0.1:7464";

export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  base: "./",
  // The page comes from this machine, so one larger piece is quicker than several.
  build: { assetsInlineLimit: 0, target: "es2023", chunkSizeWarningLimit: 1000 },
  server: { proxy: { "/api": backend, "/ws": { target: backend, ws: true } } },
  // No test is about how fast a machine is; those that render sound take long on a busy one.
  test: { include: ["src/**/*.test.ts"], testTimeout: 120_000 },
});
