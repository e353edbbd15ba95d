'use client';
import type { FocusEvent, KeyboardEvent, RefObject } from 'react';
import { flushSync } from 'react-dom';
import { xOf } from '@/core/track';
import { toggleTheme } from '@/ui/parts/theme-switch';
import { shownDocument } from '@/ui/state/design';
import { useWorkbenchStore } from '@/ui/state/store';
import { localPoint } from './local-point';
import type { SheetGeometry } from './sheet-geometry';

/** What the keys of the sheet move: the view, and the points of the selected turnout. */
interface Moves {
  zoom: (factor: number) => void;
  pan: (px: number) => void;
  showAll: () => void;
  /** Goes to the beginning or the end of the line. */
  goTo: (end: 'start' | 'end') => void;
  /** Moves just enough that a screen x is on the sheet; returns where it is then. */
  bringIn: (x: number) => number;
  pickTurnout: (id: string) => void;
  /** Single letters of the stage. */
  letters?: Record<string, () => void>;
}

/** The keys of the line sheet, and the way of the focus along it. `stack` holds its drawings, `svg` is the main one, `end` what comes after them. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one case for each key.
export function useSheetKeys(
  stack: RefObject<HTMLDivElement | null>,
  svg: RefObject<SVGSVGElement | null>,
  end: RefObject<HTMLSpanElement | null>,
  geometry: SheetGeometry,
  { zoom, pan, showAll, goTo, bringIn, pickTurnout, letters: ofStage }: Moves,
) {
  const store = useWorkbenchStore();
  const stepBlock = (by: number) => {
    const { design, selected } = store.getState();
    if (!design?.blocks.length) return;
    const order = [...design.blocks].sort(
      (a, b) => xOf(geometry.drawn(a.middle.line), a.middle.at) - xOf(geometry.drawn(b.middle.line), b.middle.at),
    );
    const here = order.findIndex(({ id }) => id === selected);
    const next = order[(here + by + order.length + (here < 0 && by < 0 ? 1 : 0)) % order.length]!;
    store.getState().select(next.id);
  };
  const nextFinding = () => {
    const { design, selected } = store.getState();
    const { findings } = design ?? { findings: [] };
    const ids = findings.map(({ subject }) => subject);
    const next = ids[(ids.indexOf(selected ?? '') + 1) % Math.max(1, ids.length)];
    if (next) store.getState().select(next);
  };
  /** Everything on the sheet that can have the focus, in order along the line and then from the top. */
  const things = () =>
    [...stack.current!.querySelectorAll<SVGGElement>('[role=button]')]
      .map((element) => ({ element, box: element.getBoundingClientRect() }))
      .sort((a, b) => a.box.left - b.box.left || a.box.top - b.box.top)
      .map(({ element }) => element);
  const onSheet = (all: SVGGElement[]) => {
    const sheet = svg.current!.getBoundingClientRect();
    return all.filter((element) => {
      const { left, right } = element.getBoundingClientRect();
      return left >= sheet.left && right <= sheet.right;
    });
  };
  /** The first thing that the sheet shows any part of. */
  const firstShown = (all: SVGGElement[]) => {
    const sheet = svg.current!.getBoundingClientRect();
    return all.find((element) => {
      const { left, right } = element.getBoundingClientRect();
      return right > sheet.left && left < sheet.right;
    });
  };
  /** Coming back from what follows the sheet, focus begins at the last thing on it. */
  const onEndFocus = (event: FocusEvent) => {
    if (!stack.current!.contains(event.relatedTarget)) onSheet(things()).at(-1)?.focus();
  };
  /** The thing that comes next beyond all that is drawn, once it is brought in and drawn too. */
  const beyondDrawn = (back: boolean): SVGGElement | undefined => {
    const { design } = store.getState();
    const document = shownDocument(store.getState());
    const anchors = document.sensors.map(({ anchor }) => anchor);
    const places = [...document.features, ...document.turnouts, ...anchors].map(({ line, at }) => ({
      line,
      at: at.tenthUm,
    }));
    for (const block of design?.blocks ?? []) places.push(block.middle);
    const xs = places
      .map(({ line, at }) => geometry.at(line, at).x)
      .filter((x) => !geometry.isNear(x) && x < 0 === back);
    if (xs.length === 0) return undefined;
    let x = 0;
    flushSync(() => {
      x = bringIn(back ? Math.max(...xs) : Math.min(...xs));
    });
    const { left } = svg.current!.getBoundingClientRect();
    const off = (element: SVGGElement) => {
      const box = element.getBoundingClientRect();
      return Math.abs(box.left + box.width / 2 - left - x);
    };
    return things().sort((a, b) => off(a) - off(b))[0];
  };
  /**
   * Tab goes along the line from thing to thing. Before the first is the sheet itself; after the last, focus goes to the
   * end of the sheet, from where the browser takes it on. True when the key is used up.
   */
  const stepThing = (back: boolean): boolean => {
    const all = things();
    const here = all.indexOf(window.document.activeElement as unknown as SVGGElement);
    if (here < 0 && back) return false;
    const next = here < 0 ? (firstShown(all) ?? all[0]) : (all[here + (back ? -1 : 1)] ?? beyondDrawn(back));
    (next ?? (back ? svg : end).current!).focus();
    return back || next !== undefined;
  };
  const onFocus = (event: FocusEvent) => {
    const target = event.target as Element;
    if (!target.matches('[role=button]:focus-visible')) return;
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
    home: () => goTo('start'),
    end: () => goTo('end'),
    escape: () => {
      store.getState().select(undefined);
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
      if (selected && document.turnouts.some((turnout) => turnout.id === selected)) pickTurnout(selected);
    },
    '/': () => store.getState().set({ window: 'find' }),
    ...ofStage,
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
  return { keys: { onKeyDown, onFocus }, onEndFocus };
}
