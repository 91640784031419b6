import { spawn } from "node:child_process";

/** As it is served, without the limits that a benchmark would meet. */
const SERVED = { NODE_ENV: "production", ZYGOMETER_START: "1", HOST: "127.0.0.1", ZYGOMETER_RATE_TIMES: "0" } as const;
const PORT = 3193;

/** Serves a folder of data with the last build while `work` asks it. */
export async function served(data: string, work: (base: string) => Promise<void>): Promise<void> {
  const env = { ...process.env, ZYGOMETER_DATA: data, NEXT_TELEMETRY_DISABLED: "1" };
  const server = spawn(process.execPath, ["--import", "tsx", "src/server/start.ts"], {
    env: { ...env, ...SERVED, PORT: String(PORT) },
    stdio: "ignore",
  });
  const base = `http://127.0.0.1:${PORT}`;
  try {
    for (let k = 0; k < 150; k++) {
      const isUp = await fetch(`${base}/api/v1/checks`).then(
        ({ ok }) => ok,
        () => false,
      );
      if (isUp) break;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
    await work(base);
  } finally {
    server.kill();
    await new Promise((resolve) => server.once("exit", resolve));
  }
}
