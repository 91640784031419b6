import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: {
    alias: {
      // A thread of the build's own is none of the sources.
      "@/server/reckoning/start-thread": fileURLToPath(new URL("./tests/start-thread.ts", import.meta.url)),
      "@": fileURLToPath(new URL("./src", import.meta.url)),
    },
  },
  test: {
    // Enumerations and small trials take seconds on a slow machine; none is a measure of speed.
    testTimeout: 180_000,
    hookTimeout: 180_000,
    include: [
      "src/**/*.test.ts",
      "src/**/*.test.tsx",
      "tests/core/**/*.test.ts",
      "tests/data/**/*.test.ts",
      "tests/structure/**/*.test.ts",
    ],
    environment: "node",
    globalSetup: ["./tests/own-temporary.ts"],
    // Browser tests have not begun: both processors of a small machine are free.
    maxWorkers: "100%",
  },
});
