import Link from 'next/link';
import type { ReactNode } from 'react';
import { Brand } from './brand';

/** A page with one thing to say, and the way back to the list of layouts. */
export function Notice({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <>
      <header className="flex h-[46px] items-center border-b border-line px-4">
        <Brand />
      </header>
      <main className="mx-auto max-w-5xl px-6 py-6">
        <h1 className="text-[1.2rem] font-bold">{title}</h1>
        <p className="mt-2">
          {children}
          <Link href="/" prefetch={false} className="underline">
            Back to your layouts
          </Link>
        </p>
      </main>
    </>
  );
}
