import "@fontsource-variable/archivo/wdth.css";
import "@fontsource-variable/spline-sans-mono";
import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { listPeople } from "@/data/catalogue/people";
import { database, openingTrouble } from "@/data/open";
import { writtenAhead } from "@/data/store/clock";
import { recordId } from "@/data/store/connection";
import { ClockNote } from "@/ui/clock-note";
import { EARLY } from "@/ui/early";
import { FoundNote } from "@/ui/found-note";
import { Header } from "@/ui/header";
import { SeatProvider } from "@/ui/person";
import { Ready } from "@/ui/ready";
import { RecordTrouble } from "@/ui/record-trouble";
import "./globals.css";
import { currentPerson } from "./session";

export const metadata: Metadata = {
  title: { default: "Zygometer", template: "%s · Zygometer" },
  description: "From complaint to proved cut",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1 };
export const dynamic = "force-dynamic";

export default async function RootLayout({ children }: { children: ReactNode }) {
  const trouble = openingTrouble();
  if (trouble) return <Unopened code={trouble.code} />;
  const person = await currentPerson();
  const now = new Date().toISOString();
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  const people = listPeople(database()).map(({ initials }) => initials);
  const seat = {
    system: person?.unitSystem ?? "us",
    theme: person?.theme ?? "light",
    standsAt: person?.standsAt ?? "behind",
    checkOrder: person?.checkOrder ?? "information",
    recordId: recordId(database()),
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    ...(person ? { who: person.initials } : {}),
  } as const;
  return (
    <html lang="en" data-theme={seat.theme} data-record={seat.recordId} suppressHydrationWarning>
      <body>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: the application's own words, nothing of anybody's in them */}
        <script nonce={nonce} dangerouslySetInnerHTML={{ __html: EARLY }} suppressHydrationWarning />
        <SeatProvider seat={seat}>
          <Header people={people} />
          <ClockNote now={now} writtenAhead={writtenAhead(database(), now)} />
          <FoundNote />
          {children}
        </SeatProvider>
        <Ready />
      </body>
    </html>
  );
}

/** The record cannot be opened: nothing of it is touched, and every page says why until it can. */
function Unopened({ code }: { code: string }) {
  return (
    <html lang="en">
      <body>
        <RecordTrouble code={code}>
          <a href="/" className="btn btn-go">
            Try again
          </a>
        </RecordTrouble>
      </body>
    </html>
  );
}
