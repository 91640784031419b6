import { defineConfig } from "@playwright/test";
import browserTests from "./playwright.config";

/** `npm run pictures`: the pictures of docs/screenshots, made anew from the demo depot, one after the other. */
export default defineConfig({ ...browserTests, testDir: "tests/pictures", fullyParallel: false, workers: 1, retries: 0 });
