import { defineConfig } from "@playwright/test";

const PORT = 3187;

/** Debian's Chromium, kept quiet where there is no network. */
const CHROMIUM_FLAGS = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

export default defineConfig({
  testDir: "tests/e2e",
  // A busy machine takes three times what an idle one does, and what takes so long has failed for no other reason.
  timeout: 100_000,
  expect: { timeout: 30_000 },
  fullyParallel: true,
  workers: 2,
  retries: process.env.CI ? 1 : 0,
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: "/usr/bin/chromium", args: CHROMIUM_FLAGS },
    trace: "off",
  },
  webServer: {
    command: "rm -rf test-results/data && npx --no-install tsx src/demo/load.ts && node --import tsx src/server/start.ts",
    url: `http://127.0.0.1:${PORT}/api/v1/checks`,
    reuseExistingServer: false,
    timeout: 120_000,
    env: {
      ...{ ZYGOMETER_DATA: "test-results/data", NEXT_TELEMETRY_DISABLED: "1", NODE_ENV: "production", ZYGOMETER_START: "1" },
      ...{ PORT: String(PORT), HOST: "127.0.0.1", ZYGOMETER_PUBLIC_URL: `http://bay.shop.test:${PORT}` },
      // Two browsers do in a minute what a shop does in a day.
      ZYGOMETER_RATE_TIMES: "20",
    },
  },
});
