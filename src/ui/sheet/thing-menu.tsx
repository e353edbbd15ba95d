'use client';
import { ContextMenu } from 'radix-ui';
import { type MouseEvent, type ReactElement, useState } from 'react';
import type { TenthUm } from '@/core/measure';
import { asTyped, callThing, LIST_NAMES, thingsOf } from '@/core/survey';
import { today } from '@/ui/parts/today';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { alikeOnLine, isPlaced } from './choosing';

interface Entry {
  says: string;
  act: () => void;
}

/** What can be done with a thing of the sheet, or with the sheet where nothing is: by the right button, or by the menu key. */
export function ThingMenu({
  onTurnout,
  placeAt,
  view,
  children,
}: {
  onTurnout?: (id: string) => void;
  /** The place of the track that is pointed at, to the step of the pointer. */
  placeAt: (event: MouseEvent) => { line: string; at: TenthUm } | undefined;
  /** What can be done with the sheet itself. */
  view: Entry[];
  children: ReactElement;
}) {
  const store = useWorkbenchStore();
  const [target, setTarget] = useState<string>();
  const [place, setPlace] = useState<{ line: string; at: TenthUm }>();
  const document = useWorkbench((s) => s.document);
  const selected = useWorkbench((s) => s.selected);
  const edits = useWorkbench((s) => s.stage.edits ?? false);
  /** Looked for only once something was pointed at: every edit comes by here. */
  const list = target && LIST_NAMES.find((name) => thingsOf(document, name).some(({ id }) => id === target));
  const thing = list ? thingsOf(document, list).find(({ id }) => id === target) : undefined;
  const block = useWorkbench((s) => (target ? s.design?.blocks.find(({ id }) => id === target)?.name : undefined));
  const called = block !== undefined ? `Block ${block}` : thing && list && callThing(list, thing, document.shownUnit);
  const { select, set, edit } = store.getState();
  const entries: Entry[] = [];
  if (target !== undefined && called !== undefined) {
    entries.push({ says: 'Look at it', act: () => select(target) });
    if (selected !== undefined && selected !== target)
      entries.push({ says: 'Measure to it from what is selected', act: () => set({ measured: target }) });
    if (list === 'turnouts' && onTurnout) entries.push({ says: 'Throw it', act: () => onTurnout(target) });
    if (edits && thing && 'certainty' in thing) {
      const certainty = thing.certainty === 'fixed' ? 'tentative' : 'fixed';
      entries.push({
        says: `Mark it as ${certainty}`,
        act: () => edit({ do: 'fix', id: target, certainty, on: today() }),
      });
    }
    if (edits && thing && isPlaced(document, target)) {
      const alike = alikeOnLine(document, target);
      if (alike.length > 1)
        entries.push({
          says: `Choose the ${alike.length} of its kind on this line`,
          act: () => set({ selected: alike[0], also: alike.slice(1), measured: undefined }),
        });
    }
    if (edits && thing && list !== 'trains')
      entries.push({
        says: 'Delete it',
        act: () => {
          if (edit({ do: 'delete', id: target }) && selected === target) select(undefined);
        },
      });
  }
  const line = place && document.lines.find(({ id }) => id === place.line);
  if (edits && place && line && (block !== undefined || target === undefined)) {
    const at = asTyped(place.at, document.shownUnit);
    entries.push({
      says: `Split ${line.name} at ${at.typed}`,
      act: () => edit({ do: 'split line', id: line.id, at }),
    });
  }
  return (
    <ContextMenu.Root>
      <ContextMenu.Trigger
        asChild
        onContextMenuCapture={(event) => {
          setTarget((event.target as Element).closest<SVGElement>('[data-thing]')?.dataset.thing);
          setPlace(placeAt(event));
        }}
      >
        {children}
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content className="zoomed z-50 min-w-44 rounded-md border border-edge bg-raised p-1 text-ink shadow-lg">
          {called && <ContextMenu.Label className="px-2 py-1 font-semibold">{called}</ContextMenu.Label>}
          {(called ? entries : [...entries, ...view]).map(({ says, act }) => (
            <ContextMenu.Item
              key={says}
              onSelect={act}
              className="cursor-pointer select-none rounded-sm px-2 py-1 outline-none data-[highlighted]:bg-accent-tint"
            >
              {says}
            </ContextMenu.Item>
          ))}
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
}
