/** So many are shown at a time of what may be thousands; nothing where all are. */
export const PAGE = 60;

/** Goes on to what is not shown yet, and back. */
export function PageBar({
  what,
  of,
  from,
  onFrom,
}: {
  what: string;
  of: number;
  from: number;
  onFrom: (from: number) => void;
}) {
  if (of <= PAGE) return null;
  const to = Math.min(of, from + PAGE);
  return (
    <span className="flex items-center gap-2">
      {what} {from + 1} to {to} of {of}
      <button type="button" className="button" disabled={from === 0} onClick={() => onFrom(Math.max(0, from - PAGE))}>
        Earlier
      </button>
      <button type="button" className="button" disabled={to === of} onClick={() => onFrom(from + PAGE)}>
        Later
      </button>
    </span>
  );
}
