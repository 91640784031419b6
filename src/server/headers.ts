import { table } from "@/core/basics/tables";

/** Nothing of a browser's is asked for: photographs come from its own picker. */
const PERMISSIONS = ["accelerometer", "camera", "geolocation", "gyroscope", "microphone", "payment", "usb", "serial", "bluetooth"]
  .map((name) => `${name}=()`)
  .join(", ");

/** A browser that came by https once comes by nothing else for so long. */
const A_YEAR_SECONDS = 31_536_000;
const OF_TLS: Record<string, string> =
  process.env.ZYGOMETER_TLS === "1" ? { "strict-transport-security": `max-age=${A_YEAR_SECONDS}` } : {};

/** What every answer carries, whatever it is. */
export const HEADERS: Readonly<Record<string, string>> = table({
  "x-content-type-options": "nosniff",
  "referrer-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
  "permissions-policy": PERMISSIONS,
  ...OF_TLS,
});
