'use client';
import type { FocusEvent, KeyboardEvent, RefObject } from 'react';
import { xOf } from '@/core/track';
import { toggleTheme } from '@/ui/parts/theme-switch';
import { blockKey, blockNameOf, useWorkbenchStore } from '@/ui/workbench/store';
import { localPoint } from './local-point';
import type { SheetGeometry } from './sheet-geometry';

/** What the keys of the sheet move: the view, and the points of the selected turnout. */
interface Moves {
  zoom: (factor: number) => void;
  pan: (px: number) => void;
  showAll: () => void;
  /** Moves just enough that a screen x is on the sheet. */
  bringIn: (x: number) => void;
  throwTurnout: (id: string) => void;
}

/** The keys of the line sheet, and the way of the focus along it. `stack` holds its drawings, `svg` is the main one. */
export function useSheetKeys(
  stack: RefObject<HTMLDivElement | null>,
  svg: RefObject<SVGSVGElement | null>,
  geometry: SheetGeometry,
  { zoom, pan, showAll, bringIn, throwTurnout }: Moves,
) {
  const store = useWorkbenchStore();
  const stepBlock = (by: number) => {
    const { design, selected } = store.getState();
    if (!design?.blocks.length) return;
    const order = [...design.blocks].sort(
      (a, b) => xOf(geometry.drawn(a.middle.line), a.middle.at) - xOf(geometry.drawn(b.middle.line), b.middle.at),
    );
    const here = order.findIndex((b) => b.name === blockNameOf(selected));
    const next = order[(here + by + order.length + (here < 0 && by < 0 ? 1 : 0)) % order.length]!;
    store.getState().select(blockKey(next.name));
  };
  const nextFinding = () => {
    const { design, selected } = store.getState();
    const { findings } = design ?? { findings: [] };
    const ids = findings.map((f) =>
      design?.blocks.some((b) => b.name === f.subject) ? blockKey(f.subject) : f.subject,
    );
    const next = ids[(ids.indexOf(selected ?? '') + 1) % Math.max(1, ids.length)];
    if (next) store.getState().select(next);
  };
  /** Everything on the sheet that can have the focus, in order along the line and then from the top. */
  const things = () =>
    [...stack.current!.querySelectorAll<SVGGElement>('[role=button]')]
      .map((element) => ({ element, box: element.getBoundingClientRect() }))
      .sort((a, b) => a.box.left - b.box.left || a.box.top - b.box.top)
      .map(({ element }) => element);
  /** Tab goes along the line from thing to thing and at its end leaves the sheet, as Escape does at once. */
  const stepThing = (back: boolean): boolean => {
    const all = things();
    const here = all.indexOf(window.document.activeElement as unknown as SVGGElement);
    const next = all[here + (back ? -1 : 1)];
    if (!next || (here < 0 && back)) return false;
    next.focus();
    return true;
  };
  const onFocus = (event: FocusEvent) => {
    const target = event.target as Element;
    if (target === svg.current || !target.matches(':focus-visible')) return;
    const box = target.getBoundingClientRect();
    bringIn(localPoint({ clientX: box.left + box.width / 2, clientY: box.top }, svg.current!).x);
  };
  const keys: Record<string, () => void> = {
    '+': () => zoom(1.3),
    '=': () => zoom(1.3),
    '-': () => zoom(1 / 1.3),
    '0': showAll,
    arrowleft: () => pan(-60),
    arrowright: () => pan(60),
    escape: () => {
      store.getState().set({ selected: undefined, measured: undefined, pointed: undefined });
      svg.current?.focus();
    },
  };
  /** Single letters and signs, which can be switched off. */
  const letters: Record<string, () => void> = {
    '[': () => stepBlock(-1),
    ']': () => stepBlock(1),
    n: nextFinding,
    f: () => store.getState().set({ trayOpen: !store.getState().trayOpen }),
    u: () => {
      const { edit, document } = store.getState();
      edit({ do: 'show unit', unit: document.shownUnit === 'cm' ? 'inch' : 'cm' });
    },
    l: toggleTheme,
    t: () => {
      const { selected, document } = store.getState();
      if (selected && document.turnouts.some((turnout) => turnout.id === selected)) throwTurnout(selected);
    },
    '/': () => store.getState().set({ window: 'find' }),
    '?': () => store.getState().set({ window: 'keys' }),
    ' ': () => store.getState().operator?.playOrPause(),
    '.': () => store.getState().operator?.step(),
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'Tab') {
      if (stepThing(event.shiftKey)) event.preventDefault();
      return;
    }
    const key = event.key.toLowerCase();
    const act = keys[key] ?? (store.getState().keysOn ? letters[key] : undefined);
    if (!act) return;
    act();
    event.preventDefault();
  };
  return { onKeyDown, onFocus };
}
