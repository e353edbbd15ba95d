import type { Metadata } from 'next';
import Link from 'next/link';
import { loadLayout } from '@/server/layouts';
import { Brand } from '@/ui/parts/brand';
import { Workbench } from '@/ui/workbench/workbench';

interface Props {
  params: Promise<{ id: string }>;
}

const load = async (id: string) => {
  try {
    return { layout: await loadLayout(id), answered: true };
  } catch (error) {
    console.error(error);
    return { layout: undefined, answered: false };
  }
};

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { layout } = await load((await params).id);
  return { title: layout ? `${layout.name} · Roblik` : 'Roblik' };
}

export default async function LayoutPage({ params }: Props) {
  const { layout, answered } = await load((await params).id);
  if (layout) return <Workbench key={layout.id} id={layout.id} document={layout.document} revision={layout.revision} />;
  return (
    <>
      <header className="flex h-[46px] items-center border-b border-line px-4">
        <Brand />
      </header>
      <main className="mx-auto max-w-5xl px-6 py-6">
        <h1 className="text-[1.2rem] font-bold">
          {answered ? 'There is no such layout' : 'The database does not answer'}
        </h1>
        <p className="mt-2">
          {answered
            ? 'It may have been deleted. '
            : 'Your layouts are safe. Stop Roblik with Ctrl-C, start it again with ./roblik start, and load this page anew. '}
          <Link href="/" prefetch={false} className="underline">
            Back to your layouts
          </Link>
        </p>
      </main>
    </>
  );
}
