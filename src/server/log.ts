import pino from "pino";

const held = globalThis as typeof globalThis & { zygometerLog?: pino.Logger };

/** One logger a process, JSON a line on standard output. ZYGOMETER_LOG=info tells every request, the default only what went wrong. */
export function log(): pino.Logger {
  held.zygometerLog ??= pino({ level: process.env.ZYGOMETER_LOG ?? "warn", base: null });
  return held.zygometerLog;
}
