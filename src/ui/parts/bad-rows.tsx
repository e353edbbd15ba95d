/** So many are listed; the rest are counted. */
const MOST_LISTED = 200;

/** Rows of a text that are not taken, each by its number, with why, and what was perhaps meant. */
export function BadRows({
  label,
  rows,
}: {
  label: string;
  rows: readonly { row: number; text: string; problem: string; meant?: string }[];
}) {
  if (rows.length === 0) return null;
  return (
    <ol aria-label={label} className="mt-2 max-h-48 shrink-0 overflow-auto rounded-md border border-line px-3 py-1">
      {rows.slice(0, MOST_LISTED).map(({ row, text, problem, meant }) => (
        <li key={row} className="border-b border-hair py-1 last:border-0">
          <strong>{row}</strong> <code>{text}</code> <span className="text-fail">{problem}</span>
          {meant && <span className="text-ink2"> Perhaps: {meant}</span>}
        </li>
      ))}
      {rows.length > MOST_LISTED && <li className="py-1 text-ink2">and {rows.length - MOST_LISTED} more</li>}
    </ol>
  );
}
