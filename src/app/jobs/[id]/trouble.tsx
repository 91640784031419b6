import type { Act } from "./act";

/** What went wrong with the last action, in a sentence; nothing typed is lost by it. */
export function Trouble({ act }: { act: Pick<Act, "trouble"> }) {
  if (!act.trouble) return null;
  return (
    <p className="trouble mt-2" role="alert">
      {act.trouble}
    </p>
  );
}
