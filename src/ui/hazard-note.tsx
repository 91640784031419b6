/** What whoever goes to a site next is told: where something lies in wait, and what was struck there lately. */
export function HazardNote({
  site,
  places,
  strikes,
}: {
  site: string;
  places: readonly { name: string; words: string }[];
  strikes: readonly { where: string; words: string; fleetNumber: string }[];
}) {
  const known = new Set(places.map(({ name }) => name.toLowerCase()));
  const others = strikes.filter(({ where }) => where !== "" && !known.has(where.toLowerCase())).slice(0, SHOWN);
  if (places.length === 0 && others.length === 0) return null;
  return (
    <aside aria-label={`Look out at ${site}`} className="my-1 border-l-4 border-watch pl-2 leading-snug">
      <b>Look out at {site}:</b>{" "}
      {[
        ...places.slice(0, SHOWN).map(({ name, words }) => (words ? `${name} (${words})` : name)),
        ...others.map(({ where, words, fleetNumber }) => `${where}${words ? ` (${words}` : " (struck"}, ${fleetNumber})`),
      ].join("; ")}
      .
    </aside>
  );
}

const SHOWN = 4;
