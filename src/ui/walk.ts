import type { KeyboardEvent } from "react";

const FIELDS = "input:not([type=hidden]):not([disabled]), select:not([disabled]), textarea:not([disabled])";

/**
 * Enter in a field goes on to the next one, as on a worksheet, and sends nothing: what was typed is not all that is wanted yet. With Ctrl, or on the button, the
 * form is sent.
 */
export function walkOnEnter(event: KeyboardEvent<HTMLFormElement>): void {
  const field = event.target;
  if (event.key !== "Enter" || event.ctrlKey || event.metaKey || !(field instanceof HTMLInputElement)) return;
  event.preventDefault();
  const all = [...event.currentTarget.querySelectorAll<HTMLElement>(`${FIELDS}, button[type=submit]`)].filter(
    (one) => one.offsetParent !== null,
  );
  const next = all[all.indexOf(field) + 1];
  next?.focus();
  if (next instanceof HTMLInputElement) next.select();
}
