"use client";

import { createContext, type ReactNode, useContext } from "react";
import type { UnitSystem } from "@/core/basics/units";
import type { Standpoint } from "@/core/machine";

/** Asks for initials where somebody would write something down and nobody knows who: at the top, wherever the page is scrolled to. */
export const ASK_WHO = "zygometer:ask-who";
export const askWho = (): void => {
  window.dispatchEvent(new Event(ASK_WHO));
};

export type Seat = {
  /** Which record this is: numbers come again in another. */
  recordId?: string;
  timeZone?: string;
  who?: string;
  system: UnitSystem;
  theme: "light" | "dark";
  standsAt: Standpoint;
  checkOrder: "information" | "walk-round";
};

const SeatContext = createContext<Seat>({ system: "us", theme: "light", standsAt: "behind", checkOrder: "information" });

/** Who sits here and how they like to see things. */
export function SeatProvider({ seat, children }: { seat: Seat; children: ReactNode }) {
  return <SeatContext value={seat}>{children}</SeatContext>;
}

export function useSeat(): Seat {
  return useContext(SeatContext);
}
