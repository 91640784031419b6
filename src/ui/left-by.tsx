import type { Draft } from "./draft";

/** What another typed here and did not send: taken over, or left to whom it belongs. */
export function LeftBy({ left }: { left: Draft<unknown>["left"] }) {
  if (!left) return null;
  return (
    <button type="button" className="btn my-1 w-full" onClick={left.take}>
      Take over what {left.by} typed here
    </button>
  );
}
