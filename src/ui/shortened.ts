/** So many lines of a list stand on a page at once, unless all are asked for: a page of three hundred machines is no slower than one of fourteen. */
export const LINES_SHOWN = 24;

/** The first lines of a list, and how many are left. One line more is no list of its own: it is shown too. */
export function shortened<T>(list: readonly T[], { isAll = false, most = LINES_SHOWN }: { isAll?: boolean; most?: number } = {}) {
  const shown = isAll || list.length <= most + 1 ? list : list.slice(0, most);
  return { shown, left: list.length - shown.length };
}
