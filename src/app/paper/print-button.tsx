"use client";

import { Printer } from "lucide-react";

export function PrintButton() {
  return (
    <button type="button" className="btn btn-go gap-2" onClick={() => window.print()}>
      <Printer size={18} aria-hidden="true" />
      Print
    </button>
  );
}
