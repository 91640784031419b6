import Link from "next/link";

export default function NotFound() {
  return (
    <main className="mx-auto max-w-2xl p-6">
      <h1 className="text-3xl">Nothing here</h1>
      <p className="mt-2 text-lg">There is no such job, machine or page. The number may be mistyped.</p>
      <div className="mt-4 flex gap-2">
        <Link href="/" className="btn btn-go">
          To the bay
        </Link>
        <Link href="/machines" className="btn">
          To the machines
        </Link>
      </div>
    </main>
  );
}
