import "@fontsource-variable/archivo/wdth.css";
import "@fontsource-variable/spline-sans-mono";
import type { Metadata, Viewport } from "next";
import type { ReactNode } from "react";
import { database } from "@/data/connection";
import { listPeople } from "@/data/people";
import { Header } from "@/ui/header";
import { SeatProvider } from "@/ui/person";
import "./globals.css";
import { currentPerson } from "./session";

export const metadata: Metadata = {
  title: { default: "Zygometer", template: "%s · Zygometer" },
  description: "From complaint to proved cut",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1 };
export const dynamic = "force-dynamic";

export default async function RootLayout({ children }: { children: ReactNode }) {
  const person = await currentPerson();
  const people = listPeople(database()).map(({ initials }) => initials);
  const seat = {
    system: person?.unitSystem ?? "us",
    theme: person?.theme ?? "light",
    standsAt: person?.standsAt ?? "behind",
    checkOrder: person?.checkOrder ?? "information",
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    ...(person ? { who: person.initials } : {}),
  } as const;
  return (
    <html lang="en" data-theme={seat.theme}>
      <body>
        <SeatProvider seat={seat}>
          <Header people={people} />
          {children}
        </SeatProvider>
      </body>
    </html>
  );
}
