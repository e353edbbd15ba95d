'use client';
import { Command } from 'cmdk';
import type { ReactNode } from 'react';
import { LIST_NAMES, LISTS, placeThing, thingsOf } from '@/core/survey';
import { toggleTheme } from '@/ui/parts/theme-switch';
import { Window } from '@/ui/parts/window';
import { STAGES } from '@/ui/stages';
import { shownDocument } from '@/ui/state/design';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { findScore } from './find-score';

/** One field that finds every thing on the layout and everything that can be done. */
export function FindWindow({ onClose }: { onClose: () => void }) {
  const store = useWorkbenchStore();
  const document = useWorkbench(shownDocument);
  const blocks = useWorkbench((s) => s.design?.blocks) ?? [];
  const { set, select, undo, redo, edit } = store.getState();
  const act = (work: () => void) => () => {
    set({ window: undefined });
    work();
  };
  const commands: [string, string, () => void][] = [
    ...STAGES.map((stage): [string, string, () => void] => [`Go to ${stage.name}`, '', () => set({ stage })]),
    ['Undo', 'Ctrl Z', undo],
    ['Redo', 'Ctrl Shift Z', redo],
    ['History of versions', '', () => set({ window: 'history' })],
    ['Print the sheet, or save it as a drawing', '', () => set({ window: 'export' })],
    ['All rules of your own', '', () => set({ window: 'rules' })],
    ['Keys', '?', () => set({ window: 'keys' })],
    ['Open or close the findings', 'F', () => set({ trayOpen: !store.getState().trayOpen })],
    [
      document.shownUnit === 'cm' ? 'Show inches' : 'Show centimetres',
      'U',
      () => edit({ do: 'show unit', unit: document.shownUnit === 'cm' ? 'inch' : 'cm' }),
    ],
    ['Light or dark', 'L', toggleTheme],
  ];
  const things: [string, string][] = [
    ...blocks.map((b): [string, string] => [`Block ${b.name}`, b.id]),
    ...LIST_NAMES.filter((list) => LISTS[list].chosen).flatMap((list) =>
      thingsOf(document, list).map((thing): [string, string] => [placeThing(document, list, thing), thing.id]),
    ),
  ];
  return (
    <Window
      title="Find"
      says="Type a few letters of a thing or a command; arrows choose, Enter takes."
      onClose={onClose}
    >
      <Command className="flex min-h-0 flex-col" loop filter={(_, typed, [name] = []) => findScore(name ?? '', typed)}>
        <Command.Input
          autoFocus
          placeholder="M1, T5, print, rehearse …"
          className="field m-3 text-[1rem]"
          aria-label="Find a thing or a command"
        />
        <Command.Empty className="px-5 pb-4 text-ink2">Nothing is called that.</Command.Empty>
        <Command.List className="max-h-96 overflow-y-auto px-3 pb-3">
          <Group title="Things to do">
            {commands.map(([says, key, work]) => (
              <Item key={says} value={says} name={says} onSelect={act(work)}>
                <span className="grow">{says}</span>
                {key && <kbd className="key">{key}</kbd>}
              </Item>
            ))}
          </Group>
          <Group title="On the layout">
            {things.map(([says, id]) => (
              <Item key={id} value={id} name={says} onSelect={act(() => select(id))}>
                {says}
              </Item>
            ))}
          </Group>
        </Command.List>
      </Command>
    </Window>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Command.Group
      heading={title}
      className="mt-1 text-ink3 [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:py-1"
    >
      {children}
    </Command.Group>
  );
}

function Item({
  value,
  name,
  onSelect,
  children,
}: {
  value: string;
  name: string;
  onSelect: () => void;
  children: ReactNode;
}) {
  return (
    <Command.Item
      value={value}
      keywords={[name]}
      onSelect={onSelect}
      className="flex cursor-pointer items-center rounded-md px-2 py-1.5 text-ink data-[selected=true]:bg-accent-tint"
    >
      {children}
    </Command.Item>
  );
}
