import type { Metadata } from "next";
import { PartForm } from "../part-form/part-form";

export const metadata: Metadata = { title: "A new part" };

export default function NewPart() {
  return (
    <main className="mx-auto max-w-[62rem] p-4">
      <h1 className="text-2xl">A new part</h1>
      <PartForm />
    </main>
  );
}
