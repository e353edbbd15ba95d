import type { Metadata } from 'next';
import { loadLayout } from '@/server/layouts';
import { Notice } from '@/ui/parts/notice';
import { Workbench } from '@/ui/shell/workbench';

interface Props {
  params: Promise<{ id: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
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

export default async function LayoutPage({ params, searchParams }: Props) {
  const { id } = await params;
  const { stage, thing } = await searchParams;
  const one = (said: string | string[] | undefined) => (typeof said === 'string' ? said : undefined);
  const { layout, answered } = await load(id);
  if (answered && !layout) return <Notice title="There is no such layout">It may have been deleted. </Notice>;
  return (
    <Workbench
      key={id}
      id={id}
      at={{ stage: one(stage), thing: one(thing) }}
      server={layout && { document: layout.document, revision: layout.revision, token: layout.token }}
    />
  );
}
