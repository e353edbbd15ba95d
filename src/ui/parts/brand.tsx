import Link from 'next/link';

/** The name of the application, and the way back to the list of layouts. */
export function Brand() {
  return (
    <Link href="/" prefetch={false} className="flex items-center gap-3 rounded-md text-[0.95rem] font-semibold">
      <svg width="28" height="16" viewBox="0 0 28 16" aria-hidden="true">
        <path d="M1 9h9M18 9h9" stroke="var(--ink)" strokeWidth="2.4" strokeLinecap="round" />
        <path d="M14 1v14" stroke="var(--accent)" strokeWidth="2.2" strokeLinecap="round" />
      </svg>
      <span className="@max-4xl:sr-only">Roblik</span>
    </Link>
  );
}
