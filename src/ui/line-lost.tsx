/** Said on a screen that no longer hears what others write. */
export function LineLost() {
  return (
    <p className="bg-mark px-3 py-1 font-bold text-paper" role="alert">
      Connection lost: what stands here may be old. Asking again …
    </p>
  );
}
