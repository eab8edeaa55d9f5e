import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const here = dirname(fileURLToPath(import.meta.url));
const server = `http://127.0.0.1:${process.env.UNITEXT_PORT ?? 4280}`;

export default defineConfig({
  root: here,
  plugins: [react(), tailwindcss()],
  // Text is parsed in a worker without a document, so the entity table that needs none is used.
  resolve: {
    alias: {
      "decode-named-character-reference": join(here, "../node_modules/decode-named-character-reference/index.js"),
    },
  },
  build: {
    outDir: join(here, "../dist/web"),
    emptyOutDir: true,
    target: "es2023",
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
  },
  worker: { format: "es" },
  server: { port: 4281, proxy: { "/api": server, "/fonts": server } },
});
