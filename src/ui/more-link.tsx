import Link from "next/link";

/** What a list left out, a touch away; nothing where all of it stands. */
export function MoreLink({ left, href }: { left: number; href: string }) {
  return left > 0 ? (
    <Link href={href} prefetch={false} className="btn my-2">
      {left} more
    </Link>
  ) : null;
}
