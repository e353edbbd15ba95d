import type { Metadata } from 'next';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import './globals.css';

export const metadata: Metadata = {
  title: 'Roblik',
  description: 'Block detection, signals and interlocking for model railroads',
};
export const dynamic = 'force-dynamic';

const SIZES = ['1', '1.25', '1.5'];

export default async function RootLayout({ children }: { children: ReactNode }) {
  await headers();
  const jar = await cookies();
  const theme = jar.get('theme')?.value === 'dark' ? 'dark' : 'light';
  const size = SIZES.find((s) => s === jar.get('size')?.value) ?? '1';
  return (
    <html lang="en" data-theme={theme} style={{ ['--size' as string]: size }}>
      <body>
        <div className="zoomed">{children}</div>
      </body>
    </html>
  );
}
