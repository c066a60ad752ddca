import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { documents } from "./documents.ts";

export default defineConfig({
  plugins: [react(), tailwindcss(), documents()],
  // What draws in space comes only once the building is looked at.
  build: { target: "es2022", sourcemap: false, chunkSizeWarningLimit: 600 },
});
