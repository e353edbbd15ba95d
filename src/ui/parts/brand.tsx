import Link from 'next/link';

/** The name of the application, and the way back to the list of layouts; there it leads nowhere. */
export function Brand({ isHere = false }: { isHere?: boolean }) {
  const look = 'flex items-center gap-3 rounded-md text-[0.95rem] font-semibold';
  const name = (
    <>
      <svg width="28" height="16" viewBox="0 0 28 16" aria-hidden="true">
        <path d="M1 9h9M18 9h9" stroke="var(--ink)" strokeWidth="2.4" strokeLinecap="round" />
        <path d="M14 1v14" stroke="var(--accent)" strokeWidth="2.2" strokeLinecap="round" />
      </svg>
      <span className="@max-4xl:sr-only">Roblik</span>
    </>
  );
  if (isHere) return <span className={look}>{name}</span>;
  return (
    <Link href="/" prefetch={false} className={look}>
      {name}
    </Link>
  );
}
