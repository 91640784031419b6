"use client";

import Link from "next/link";
import { codeOf, RecordTrouble } from "@/ui/record-trouble";

export default function PageFailed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const code = codeOf(error.digest);
  return (
    <RecordTrouble code={code}>
      <button type="button" className="btn btn-go" onClick={reset}>
        Try again
      </button>
      <Link href="/" className="btn">
        To the bay
      </Link>
      {code === "internal" && error.digest && <p className="num w-full text-soft">In the log: {error.digest}</p>}
    </RecordTrouble>
  );
}
