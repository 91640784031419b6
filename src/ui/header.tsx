"use client";

import { Moon, Plus, Ruler, Sun } from "lucide-react";
import Link from "next/link";
import { usePathname, useRouter } from "next/navigation";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { ASK_WHO, useSeat } from "./person";
import { send } from "./send";
import { ShortcutsDialog } from "./shortcuts";
import { sayError, sayIssue } from "./words/issues";

const YEAR_SECONDS = 31_536_000;

function remember(initials: string): void {
  // The cookie only says whose units and theme to draw the page with; every change names its person itself.
  // biome-ignore lint/suspicious/noDocumentCookie: the Cookie Store interface is not in every browser a shop has
  document.cookie = `zygometer-who=${encodeURIComponent(initials)}; path=/; max-age=${YEAR_SECONDS}; samesite=strict${window.location.protocol === "https:" ? "; secure" : ""}`;
}

/** Pages of the shop, besides the machines' own. */
const SHOP = ["/shop", "/service", "/rounds", "/parts", "/handover", "/sites", "/holds", "/procedures"];

export function Header({ people }: { people: readonly string[] }) {
  const path = usePathname();
  return (
    <header className="print:hidden flex h-13 items-center border-b-2 border-ink bg-sheet px-3 max-sm:px-1">
      <Link href="/" className="flex items-center gap-2 text-lg font-bold sm:mr-3" style={{ fontStretch: "75%" }}>
        <Mark />
        <span className="max-sm:sr-only">Zygometer</span>
      </Link>
      <nav aria-label="Main" className="flex items-center max-sm:text-sm">
        <NavLink href="/" label="Bay" isHere={path === "/" || path.startsWith("/jobs")} />
        <NavLink href="/machines" label="Machines" isHere={path.startsWith("/machines")} />
        <NavLink href="/shop" label="Shop" isHere={SHOP.some((start) => path.startsWith(start))} />
        <NavLink href="/reckoner" label="Reckoner" isHere={path.startsWith("/reckoner")} />
        <Link href="/complaint" className="btn btn-quiet gap-1" aria-current={path === "/complaint" ? "page" : undefined}>
          <Plus size={18} aria-hidden="true" className="max-sm:hidden" />
          Complaint
        </Link>
      </nav>
      <div className="ml-auto flex shrink-0 items-center">
        <span className="max-sm:hidden">
          <ShortcutsDialog isListening />
        </span>
        <Likes className="max-sm:hidden" />
        <Who people={people} />
      </div>
    </header>
  );
}

function Mark() {
  return (
    <svg viewBox="0 0 24 24" width={24} height={24} aria-hidden="true">
      <g fill="none" stroke="var(--dye-text)" strokeWidth={2.4} strokeLinecap="round">
        <path d="M4 4v7a8 8 0 0 0 16 0V4" />
        <path d="M12 19v4M1 4h6M17 4h6" />
      </g>
    </svg>
  );
}

function NavLink({ href, label, isHere }: { href: string; label: string; isHere: boolean }) {
  return (
    <Link
      href={href}
      aria-current={isHere ? "page" : undefined}
      className="btn btn-quiet aria-[current=page]:underline decoration-2 underline-offset-8"
    >
      {label}
    </Link>
  );
}

/** Units and theme: in the header, and where it is too narrow for them, with one's initials. */
function Likes({ className }: { className: string }) {
  const seat = useSeat();
  const router = useRouter();
  const change = async (preferences: Record<string, string>) => {
    if (!seat.who) return;
    await send(`/api/v1/people/${encodeURIComponent(seat.who)}`, { who: seat.who, ...preferences }, "PATCH");
    router.refresh();
  };
  if (!seat.who) return null;
  const isDark = seat.theme === "dark";
  return (
    <>
      <button
        type="button"
        className={`btn btn-quiet ${className}`}
        onClick={() => change({ unitSystem: seat.system === "us" ? "metric" : "us" })}
        aria-label={`${seat.system === "us" ? "in · psi" : "mm · kPa"}: units. Change.`}
      >
        <Ruler size={18} aria-hidden="true" />
        {seat.system === "us" ? "in · psi" : "mm · kPa"}
      </button>
      <button
        type="button"
        className={`btn btn-quiet ${className}`}
        onClick={() => change({ theme: isDark ? "light" : "dark" })}
        aria-label={isDark ? "Light theme" : "Dark theme"}
      >
        {isDark ? <Sun size={18} aria-hidden="true" /> : <Moon size={18} aria-hidden="true" />}
      </button>
    </>
  );
}

/** Picked initials: who does what is written down with it. */
export function Who({ people }: { people: readonly string[] }) {
  const { who, system } = useSeat();
  const router = useRouter();
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState("");
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    const ask = () => setOpen(true);
    window.addEventListener(ASK_WHO, ask);
    return () => window.removeEventListener(ASK_WHO, ask);
  }, []);
  const pick = (initials: string) => {
    remember(initials);
    setOpen(false);
    router.refresh();
  };
  const add = async () => {
    const sent = await send<{ initials: string }>("/api/v1/people", { initials: text });
    if (sent.ok) {
      setText("");
      setTrouble("");
      pick(sent.answer.initials);
      return;
    }
    const [issue] = sent.issues;
    setTrouble(issue ? sayIssue(issue, system) : sayError(sent.error));
  };
  return (
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Dialog.Trigger
        className={`btn num max-w-20 shrink-0 whitespace-normal !px-2 leading-none sm:max-w-none sm:whitespace-nowrap sm:!px-4 ${who ? "" : "btn-go"}`}
        aria-label={who ? `${who}: you. Change.` : "Who are you?"}
      >
        {who ?? (
          <>
            <span className="sm:hidden">Who?</span>
            <span className="max-sm:hidden">Who are you?</span>
          </>
        )}
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content className="fixed right-2 top-14 z-50 w-72 border-2 border-ink bg-sheet p-4 text-ink">
          <Dialog.Title className="text-xl">Who are you?</Dialog.Title>
          <Dialog.Description className="text-sm text-soft">Everything written down carries your initials.</Dialog.Description>
          <div className="mt-2 grid grid-cols-3 gap-1">
            {people.map((initials) => (
              <button
                key={initials}
                type="button"
                onClick={() => pick(initials)}
                className={`btn num px-1 ${initials === who ? "btn-on" : ""}`}
              >
                {initials}
              </button>
            ))}
          </div>
          <form
            className="mt-3 border-t border-rule pt-2"
            onSubmit={(event) => {
              event.preventDefault();
              add();
            }}
          >
            <label className="caps" htmlFor="new-initials">
              Not on the list
            </label>
            <div className="mt-1 flex gap-1">
              <input
                id="new-initials"
                className="input num uppercase"
                value={text}
                maxLength={4}
                autoComplete="off"
                aria-invalid={trouble !== ""}
                aria-describedby="new-initials-trouble"
                onChange={(event) => setText(event.target.value)}
              />
              <button type="submit" className="btn">
                Add
              </button>
            </div>
            <p id="new-initials-trouble" className="trouble" role="alert">
              {trouble}
            </p>
          </form>
          <div className="mt-3 flex flex-wrap items-center border-t border-rule pt-2 sm:hidden">
            <Likes className="" />
            <ShortcutsDialog />
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
