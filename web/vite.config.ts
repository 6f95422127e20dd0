import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const DEMO = "http://127.0.0.1:8420";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    target: "es2022",
    chunkSizeWarningLimit: 700,
    assetsInlineLimit: 0,
    license: { fileName: "licenses.txt" },
  },
  server: {
    port: 5173,
    strictPort: true,
    // as if the page came from the server itself: it refuses signing in from anywhere else
    proxy: { "/api": { target: DEMO, changeOrigin: true, headers: { origin: DEMO } } },
    fs: { allow: [".."] },
  },
});
