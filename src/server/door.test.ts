import type { AddressInfo } from "node:net";
import { connect } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { atTheDoor, serverFor, TIMES } from "./door";
import { Limiter, RATES } from "./rates";

const open: { close: () => unknown }[] = [];
afterEach(() => {
  for (const server of open.splice(0)) server.close();
});

/** A door with an answer behind it that tells the headers it was handed. */
async function doorAt(times = TIMES): Promise<{ base: string; port: number }> {
  const answer = atTheDoor((request, response) => {
    request.resume();
    request.on("end", () => response.end(JSON.stringify(request.headers)));
  }, new Limiter());
  const server = serverFor(answer, undefined, times);
  open.push({ close: () => server.closeAllConnections() ?? server.close() });
  await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
  const { port } = server.address() as AddressInfo;
  return { base: `http://127.0.0.1:${port}`, port };
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
});
