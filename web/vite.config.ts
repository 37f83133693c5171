import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { ownWords } from "./words/plugin";

export default defineConfig({
  plugins: [ownWords(), react(), tailwindcss()],
  // The server puts its own in at every page: styles that components bring are taken by it, and no others.
  html: { cspNonce: "one-page-nonce" },
  build: { target: "es2022", assetsInlineLimit: 0 },
  // The client's own tests are bundled whole: they run where no packages are.
  ssr: { noExternal: true },
  server: { host: "127.0.0.1", proxy: { "/api": "http://127.0.0.1:7317" } },
});
