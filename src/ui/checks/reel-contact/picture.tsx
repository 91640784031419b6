"use client";

import { CONTACT_SCHOOLS } from "@/core/catalogue";
import type { ContactDetail, ContactReadings } from "@/core/checks";
import { unitsAcross } from "@/core/machine";
import { ContactGrid } from "@/drawings/contact-grid";
import type { PictureArgs } from "../face";
import { Waiting } from "../framed";
import { stateIn } from "../shared";
import { states } from "./states";

const SCHOOL_WORDS = { "no-contact": "Without contact", "light-contact": "Light contact", "firm-contact": "Firm contact" } as const;

/** The unit typed in last has the most trials; each shows its grid and the same trial under all three ways of setting. */
export function Picture({ machine, readings, assessment }: PictureArgs) {
  const units = (assessment?.detail as ContactDetail | undefined)?.units ?? {};
  const { units: now = {}, standing = {} } = readings as Partial<ContactReadings>;
  const read = { ...standing, ...now };
  const shown = unitsAcross(machine).filter(({ id }) => {
    const one = read[id];
    return units[id] !== undefined && (one?.worst !== undefined || one?.trials !== undefined || one?.gaps !== undefined);
  });
  if (shown.length === 0)
    return <Waiting words="One strip of paper at the left, the middle and the right of every reel blade: the contact appears here" />;
  return (
    <div className="flex min-h-0 flex-1 gap-2 overflow-x-auto p-2">
      {shown.map(({ id, label }) => {
        const contact = units[id];
        const { trials = {}, worst } = read[id] ?? {};
        if (!contact) return null;
        const rows = [
          ...Object.entries(trials)
            .sort(([a], [b]) => Number(a) - Number(b))
            .map(([blade, paper]) => ({ name: `blade ${blade}`, paper })),
          ...(worst ? [{ name: "worst of all", paper: worst }] : []),
        ];
        return (
          <figure key={id} className="m-0 flex min-w-60 flex-1 flex-col text-[var(--chalk)]">
            <figcaption className="font-bold">{label}</figcaption>
            <div className="min-h-0 flex-1">
              <ContactGrid
                rows={rows}
                along={contact.along}
                label={`${label}: ${Object.entries(contact.along)
                  .map(([place, setting]) => `${place} ${setting}`)
                  .join(", ")}`}
              />
            </div>
            <table className="w-full text-sm">
              <caption className="sr-only">The same trials under each way of setting</caption>
              <tbody>
                {CONTACT_SCHOOLS.map((school) => (
                  <tr key={school} className={school === contact.school ? "font-bold" : "text-[var(--chalk-soft)]"}>
                    <th scope="row" className="text-left font-normal">
                      {SCHOOL_WORDS[school]}
                      {school === contact.school ? " (this unit)" : ""}
                    </th>
                    <td>
                      {contact.bySchool[school] === "even"
                        ? "right"
                        : stateIn({ states }, contact.bySchool[school] === "everywhere-tight" ? "tight" : contact.bySchool[school])}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </figure>
        );
      })}
    </div>
  );
}
