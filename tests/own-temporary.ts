import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

/** Whatever the tests put into the system's temporary folder goes into one of their own, and goes with them. */
export default function ownTemporary(): () => void {
  const folder = mkdtempSync(path.join(tmpdir(), "zygometer-tests-"));
  process.env.TMPDIR = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
