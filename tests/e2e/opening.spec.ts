import { execFileSync, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { expect, test } from "@playwright/test";
import Database from "better-sqlite3";
import { DEMO_JOBS } from "./helpers";

/** A server of its own on a folder of its own, with what it printed. */
async function serve(port: number, folder: string, more: Record<string, string> = {}) {
  let said = "";
  const env = {
    ...process.env,
    ZYGOMETER_DATA: folder,
    NODE_ENV: "production",
    ZYGOMETER_START: "1",
    PORT: String(port),
    HOST: "127.0.0.1",
    ...more,
  };
  const child = spawn(process.execPath, ["--import", "tsx", "src/server/start.ts"], {
    env: env as NodeJS.ProcessEnv,
    stdio: ["ignore", "pipe", "pipe"],
  });
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (data) => {
      said += data;
    });
  await expect.poll(() => said, { timeout: 60_000 }).toContain("Zygometer is at");
  return { base: `http://127.0.0.1:${port}`, said: () => said, stop: () => child.kill("SIGKILL") };
}

const emptyFolder = () => mkdtempSync(path.join(tmpdir(), "zygometer-opening-"));

function demoFolder(): { folder: string; file: string } {
  const folder = emptyFolder();
  execFileSync("npx", ["--no-install", "tsx", "src/demo/load.ts"], { env: { ...process.env, ZYGOMETER_DATA: folder }, stdio: "ignore" });
  return { folder, file: path.join(folder, "zygometer.sqlite") };
}

test("a damaged record is told on every page and in the terminal, is not touched, and opens once it is put right", async ({ page }) => {
  const folder = emptyFolder();
  const file = path.join(folder, "zygometer.sqlite");
  writeFileSync(file, "no database at all ".repeat(2000));
  const before = readFileSync(file);
  const server = await serve(3211, folder);
  try {
    expect(server.said()).toContain("The record's file is damaged");
    for (const address of ["/", "/machines", "/jobs/1", "/complaint"]) {
      await page.goto(`${server.base}${address}`);
      await expect(page.getByRole("heading", { name: "The record is damaged" })).toBeVisible();
    }
    const answer = await page.request.get(`${server.base}/api/v1/machines`, { headers: { origin: server.base } });
    expect([answer.status(), (await answer.json()).error]).toEqual([500, "record-spoilt"]);
    expect(readFileSync(file).equals(before)).toBe(true);
    writeFileSync(file, readFileSync(demoFolder().file));
    await page.getByRole("link", { name: "Try again" }).click();
    await expect(page.getByRole("heading", { name: /Held out of service/ })).toBeVisible();
  } finally {
    server.stop();
  }
});

test("a record of a newer program is left alone; a busy one is waited for; a spoilt sheet takes no other page with it; an odd clock is said", async ({
  page,
}) => {
  test.slow();
  const { folder, file } = demoFolder();
  const change = (sql: string) => {
    const db = new Database(file);
    db.exec(sql);
    db.close();
  };
  change("INSERT INTO migrations (version, name, at) VALUES (999, 'later', '2030-01-01')");
  const server = await serve(3212, folder);
  try {
    await page.goto(server.base);
    await expect(page.getByRole("heading", { name: "The record is of a newer Zygometer" })).toBeVisible();
    change("DELETE FROM migrations WHERE version = 999");
    // Another program has it for itself.
    const other = new Database(file);
    other.pragma("locking_mode = EXCLUSIVE");
    other.exec("BEGIN EXCLUSIVE");
    await page.goto(server.base);
    await expect(page.getByRole("heading", { name: "The record is busy" })).toBeVisible();
    other.close();
    await page.goto(server.base);
    await expect(page.getByRole("heading", { name: /On the stands/ })).toBeVisible();
    // While another writes, what is sent waits its turn and is done once.
    await page.context().addCookies([{ name: "zygometer-who", value: "AK", url: server.base }]);
    await page.goto(`${server.base}/jobs/${DEMO_JOBS.held}`);
    await page.getByRole("button", { name: "Note", exact: true }).click();
    await page.getByRole("textbox", { name: "Note" }).fill("waited its turn");
    const writer = new Database(file);
    writer.exec("BEGIN IMMEDIATE");
    setTimeout(() => writer.close(), 3000);
    await page.getByRole("button", { name: "Write", exact: true }).click();
    await expect(page.getByRole("list", { name: "Timeline" }).getByText("waited its turn")).toHaveCount(1);
    // One sheet that cannot be read.
    change("DROP TRIGGER IF EXISTS machine_sheets_kept; UPDATE machine_sheets SET sheet_json = '{}' WHERE machine_id = 'zt-2'");
    server.stop();
    change(`INSERT INTO audit (at, who, action, subject, detail_json) VALUES ('2099-01-01T00:00:00.000Z', 'AK', 'note', 'job:1', '{}')`);
  } finally {
    server.stop();
  }
  const again = await serve(3213, folder);
  try {
    await page.context().addCookies([{ name: "zygometer-who", value: "AK", url: again.base }]);
    for (const address of ["/", "/machines"]) {
      await page.goto(`${again.base}${address}`);
      await expect(page.getByText("The sheet of ZT-2 cannot be read.")).toBeVisible();
    }
    await expect(page.getByRole("link", { name: /ZT-1/ }).first()).toBeVisible();
    await page.goto(`${again.base}/machines/zt-2`);
    await expect(page.getByRole("heading", { name: "This sheet cannot be read" })).toBeVisible();
    await expect(page.getByText("the record was written up to 1 Jan 2099")).toBeVisible();
  } finally {
    again.stop();
  }
});

test("over TLS with a certificate of the shop's own, pages and changes work, and plain http does not", async ({ browser }) => {
  const { folder } = demoFolder();
  const [key, cert] = [path.join(folder, "key.pem"), path.join(folder, "certificate.pem")];
  const names = ["-subj", "/CN=localhost", "-addext", "subjectAltName=DNS:localhost,IP:127.0.0.1"];
  execFileSync("openssl", ["req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", ...names, "-keyout", key, "-out", cert], {
    stdio: "ignore",
  });
  const server = await serve(3214, folder, { ZYGOMETER_TLS: "1", ZYGOMETER_TLS_KEY: key, ZYGOMETER_TLS_CERT: cert });
  try {
    const base = "https://127.0.0.1:3214";
    const context = await browser.newContext({ ignoreHTTPSErrors: true });
    await context.addCookies([{ name: "zygometer-who", value: "AK", url: base }]);
    const page = await context.newPage();
    await page.goto(`${base}/jobs/${DEMO_JOBS.held}`);
    expect(await page.evaluate(() => window.isSecureContext)).toBe(true);
    await page.getByRole("button", { name: "Note", exact: true }).click();
    await page.getByRole("textbox", { name: "Note" }).fill("over TLS");
    await page.getByRole("button", { name: "Write", exact: true }).click();
    await expect(page.getByRole("list", { name: "Timeline" })).toContainText("over TLS");
    // The same name over plain http is another place.
    const plain = await context.request.post(`${base}/api/v1/people`, {
      headers: { origin: "http://127.0.0.1:3214" },
      data: { initials: "XY" },
    });
    expect(plain.status()).toBe(403);
    await expect(context.request.get("http://127.0.0.1:3214/")).rejects.toThrow();
    await context.close();
  } finally {
    server.stop();
  }
});
