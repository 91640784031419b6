import type { Metadata } from "next";
import { headers } from "next/headers";
import Link from "next/link";
import { paperAddress } from "@/app/paper/address";
import { PrintButton } from "@/app/paper/print-button";
import { QrCode } from "@/app/paper/qr";
import { listMachineNames } from "@/data/machine/machines";
import { database } from "@/data/open";

export const metadata: Metadata = { title: "Labels" };

type Props = { searchParams: Promise<{ machines?: string }> };

/** A sheet of labels, one a machine: its code opens the complaint form for that machine on whatever telephone reads it. */
export default async function LabelsPage({ searchParams }: Props) {
  const { machines } = await searchParams;
  const asked = typeof machines === "string" ? machines.split(",").filter((id) => id !== "") : [];
  const all = listMachineNames(database());
  const shown = asked.length === 0 ? all : all.filter(({ id }) => asked.includes(id));
  const { origin, isReachable } = paperAddress((await headers()).get("host"));
  return (
    <main className="mx-auto max-w-[60rem] p-4 print:max-w-none print:p-0">
      <div className="mb-3 print:hidden">
        <h1 className="text-2xl">Labels</h1>
        <p className="max-w-[44rem] py-1">
          One for every machine, 63 mm wide and 34 mm high, three across. Whoever sees something wrong with the cut reads the code with a
          telephone, and the complaint form opens for that machine.
        </p>
        {!isReachable && (
          <p className="border-l-4 border-mark py-1 pl-2 font-semibold text-mark">
            This server is reached from this computer alone: no telephone can open these codes. Start it with HOST=0.0.0.0, or tell it its
            address with ZYGOMETER_PUBLIC_URL, and print then.
          </p>
        )}
        <div className="flex flex-wrap gap-2 py-1">
          <PrintButton />
          {asked.length > 0 && (
            <Link href="/labels" className="btn" prefetch={false}>
              All {all.length} machines
            </Link>
          )}
          <Link href="/machines" className="btn" prefetch={false}>
            Machines
          </Link>
        </div>
      </div>
      {shown.length === 0 && <p className="text-lg">No machine here is called that.</p>}
      <ul className="grid grid-cols-[repeat(auto-fill,63mm)] gap-[1mm] print:grid-cols-[repeat(3,63mm)]" aria-label="Labels">
        {shown.map(({ id, fleetNumber, name, site }) => (
          <li
            key={id}
            className="flex h-[34mm] w-[63mm] break-inside-avoid items-center gap-[2mm] border border-dashed border-neutral-500 bg-white p-[2mm] text-black"
          >
            <QrCode text={`${origin}/complaint?machine=${id}`} size="29mm" label={`Complaint about ${fleetNumber}`} />
            <span className="min-w-0 leading-tight">
              <span className="num block text-[6mm] font-bold">{fleetNumber}</span>
              <span className="block text-[2.8mm]">{name}</span>
              <span className="block text-[2.6mm]">{site}</span>
              <span className="mt-[1mm] block text-[2.8mm] font-bold">Bad cut? Read me.</span>
            </span>
          </li>
        ))}
      </ul>
    </main>
  );
}
