import { scaleOf, showLength } from '@/core/measure';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { listLayouts, type StoredLayout } from '@/server/layouts';
import { ExampleShelf } from '@/ui/layouts/example-shelf';
import { LayoutList } from '@/ui/layouts/layout-list';
import { LayoutThumbnail } from '@/ui/layouts/layout-thumbnail';
import { Brand } from '@/ui/parts/brand';
import { ThemeSwitch } from '@/ui/parts/theme-switch';

function factsOf({ document }: StoredLayout): string {
  const length = document.lines.reduce((sum, line) => sum + line.length.tenthUm, 0);
  return `${scaleOf(document.scale).label} · ${showLength(length, document.shownUnit)} of track · ${document.trains.length} ${document.trains.length === 1 ? 'train' : 'trains'}`;
}

export default async function LayoutsPage() {
  const layouts = await listLayouts().catch((error: unknown) => {
    console.error(error);
    return undefined;
  });
  return (
    <>
      <header className="flex h-[46px] items-center justify-between border-b border-line px-4">
        <Brand isHere />
        <ThemeSwitch />
      </header>
      {layouts ? (
        <>
          <LayoutList
            layouts={layouts.map((layout) => ({
              id: layout.id,
              name: layout.name,
              facts: factsOf(layout),
              changed: `${layout.updatedAt.slice(0, 10)} ${layout.updatedAt.slice(11, 16)} UTC`,
              picture: <LayoutThumbnail document={layout.document} />,
            }))}
          />
          <ExampleShelf
            examples={EXAMPLES.map((example) => ({
              id: example.id,
              name: example.name,
              story: example.story,
              first: example.first,
              picture: <LayoutThumbnail document={exampleLayout(example)} />,
            }))}
          />
        </>
      ) : (
        <main className="mx-auto max-w-5xl px-6 py-6">
          <h1 className="text-[1.2rem] font-bold">The database does not answer</h1>
          <p className="mt-2">
            Your layouts are safe. Stop Roblik with Ctrl-C, start it again with ./roblik start, and load this page anew.
          </p>
        </main>
      )}
    </>
  );
}
