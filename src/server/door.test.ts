import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { connect } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { atTheDoor, LINES, serverFor, TIMES } from "./door";
import { forgetOrigins } from "./origins";
import { canonicalPath, Limiter, RATES } from "./rates";

const open: { close: () => unknown }[] = [];
afterEach(() => {
  for (const server of open.splice(0)) server.close();
});

/** The door knows its own names: which, the environment says, and it is asked again now. */
function answersTo(port: number): void {
  process.env.PORT = String(port);
  forgetOrigins();
}

/** A door with an answer behind it that tells the headers it was handed. */
async function doorAt(times = TIMES, lines = LINES): Promise<{ base: string; port: number; server: Server }> {
  const answer = atTheDoor((request, response) => {
    request.resume();
    request.on("end", () => response.end(JSON.stringify(request.headers)));
  }, new Limiter());
  const server = serverFor(answer, undefined, { times, lines });
  open.push({ close: () => server.closeAllConnections() ?? server.close() });
  await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
  const { port } = server.address() as AddressInfo;
  answersTo(port);
  return { base: `http://127.0.0.1:${port}`, port, server };
}

describe("the door", () => {
  it("gives every request an id, believes nothing a caller says of where it came from, and says the id in the answer", async () => {
    const { base } = await doorAt();
    const said = {
      "x-request-id": "mine",
      "x-forwarded-host": "evil.example",
      "x-forwarded-proto": "https",
      "x-middleware-subrequest": "proxy",
    };
    const [first, second] = [await fetch(base, { headers: said }), await fetch(base, { headers: said })];
    const handed = (await first.json()) as Record<string, string>;
    expect(handed["x-request-id"]).toBe(first.headers.get("x-request-id"));
    expect(handed["x-request-id"]).toMatch(/^[0-9a-f-]{36}$/);
    expect(first.headers.get("x-request-id")).not.toBe(second.headers.get("x-request-id"));
    expect(Object.keys(handed)).not.toEqual(expect.arrayContaining(["x-forwarded-host"]));
    for (const name of ["x-forwarded-host", "x-forwarded-proto", "x-middleware-subrequest"]) expect(handed[name], name).toBeUndefined();
  });

  it("lets in as many initials as a shop has, then says when to come again, and lets reads pass", async () => {
    const { base } = await doorAt();
    const add = () => fetch(`${base}/api/v1/people`, { method: "POST", body: "{}" });
    for (let k = 0; k < RATES.people.burst; k++) expect((await add()).status).toBe(200);
    const refused = await add();
    expect(refused.status).toBe(429);
    expect(Number(refused.headers.get("retry-after"))).toBeGreaterThan(0);
    expect(await refused.json()).toMatchObject({ error: "too-many-requests", issues: [{ waitSeconds: 10 }] });
    expect((await fetch(`${base}/api/v1/people`)).status).toBe(200);
  });

  it("cuts a body that does not come, after its time and not before", async () => {
    expect(TIMES.requestTimeout).toBeLessThanOrEqual(30_000);
    const { port } = await doorAt({ requestTimeout: 400, headersTimeout: 300, connectionsCheckingInterval: 50 });
    const begun = performance.now();
    const said = await new Promise<string>((done) => {
      let text = "";
      const socket = connect(port, "127.0.0.1", () => {
        socket.write("POST /api/v1/complaints HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-length: 1000\r\n\r\n{");
      });
      socket.on("data", (data) => {
        text += data;
      });
      socket.on("close", () => done(text));
      socket.on("error", () => done(text));
    });
    expect(said).toContain("408");
    expect(performance.now() - begun).toBeGreaterThan(350);
  });

  /** Opens a line that never closes its own end, and tells when the server's end of it is gone. */
  function stubborn(port: number, text: string): { closed: Promise<void> } {
    const socket = connect({ port, host: "127.0.0.1", allowHalfOpen: true }, () => socket.write(text));
    socket.on("data", () => undefined);
    socket.on("error", () => undefined);
    open.push({ close: () => socket.destroy() });
    return { closed: new Promise((done) => socket.on("close", () => done())) };
  }

  it("holds no line of whoever is answered 408 and does not close its own end", async () => {
    const { port, server } = await doorAt({ requestTimeout: 400, headersTimeout: 300, connectionsCheckingInterval: 50 });
    for (let k = 0; k < 20; k++) stubborn(port, "POST /api/v1/complaints HTTP/1.1\r\nhost: x\r\ncontent-length: 1000\r\n\r\n{");
    const count = () => new Promise<number>((done) => server.getConnections((_, n) => done(n)));
    await expect.poll(count, { timeout: 10_000 }).toBe(20);
    await expect.poll(count, { timeout: 20_000 }).toBe(0);
  });

  it("holds so many lines of one address and no more", async () => {
    const { port, server } = await doorAt(TIMES, { inAll: 50, fromOne: 5 });
    for (let k = 0; k < 12; k++) stubborn(port, "GET / HTTP/1.1\r\n");
    const count = () => new Promise<number>((done) => server.getConnections((_, n) => done(n)));
    await expect.poll(count, { timeout: 10_000 }).toBe(5);
  });

  /** What is answered to a request as it is written, with nothing put right on its way. */
  const raw = (port: number, method: string, path: string, host = `127.0.0.1:${port}`) =>
    new Promise<{ status: number; text: string }>((done) => {
      let text = "";
      const socket = connect(port, "127.0.0.1", () =>
        socket.write(`${method} ${path} HTTP/1.1\r\nhost: ${host}\r\nconnection: close\r\n\r\n`),
      );
      socket.on("data", (data) => {
        text += data;
      });
      socket.on("close", () => done({ status: Number(text.slice(9, 12)), text }));
    });

  it("stands before every path: under a foreign name nothing but a refusal, with its policies", async () => {
    const { port } = await doorAt();
    for (const path of ["/", "/favicon.ico", "/favicon.icoX", "/_next/staticX", "/_next/image", "/_next/static/x.js", "/api/v1/fleet"]) {
      const { status, text } = await raw(port, "GET", path, "evil.example");
      expect([path, status]).toEqual([path, 421]);
      expect(text.toLowerCase()).toContain("x-content-type-options: nosniff");
    }
    expect((await raw(port, "GET", "/")).status).toBe(200);
  });

  it("answers no method that nobody uses, and no path that can be read in two ways: none slips past its rate", async () => {
    const { port } = await doorAt();
    expect((await raw(port, "TRACE", "/")).status).toBe(405);
    for (const path of [
      "/api/v1/checks/../people",
      "/api/v1/checks/%2e%2e/people",
      "/./api/v1/people",
      "//api/v1/people",
      "/api/v1/checks/..%2fpeople",
    ]) {
      expect([path, canonicalPath(path), (await raw(port, "POST", path)).status]).toEqual([path, undefined, 404]);
    }
    expect(["/", "/jobs/1?x=../y", "/machines/zt-1#a", "/sites?site=a%2Fb"].map(canonicalPath)).toEqual([
      "/",
      "/jobs/1",
      "/machines/zt-1",
      "/sites",
    ]);
  });
});
