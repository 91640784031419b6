"use client";

import "./globals.css";
import { codeOf, RecordTrouble } from "@/ui/record-trouble";

/** When not even the frame of a page can be drawn. */
export default function AllFailed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <RecordTrouble code={codeOf(error.digest)}>
          <button type="button" className="btn btn-go" onClick={reset}>
            Try again
          </button>
        </RecordTrouble>
      </body>
    </html>
  );
}
