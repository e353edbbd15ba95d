import type { Aspect } from '@/core/signals';
import { type LayoutDocument, type Signal, signalsOf } from '@/core/survey';
import { Pickable } from './pickable';
import type { Placed } from './plan-labels';
import type { SheetGeometry } from './sheet-geometry';
import { SignalHead } from './signal-head';

interface Props {
  document: LayoutDocument;
  geometry: SheetGeometry;
  placed: Placed;
  selected: string | undefined;
  aspectOf: (signal: Signal, index: number) => Aspect | undefined;
  isHeld: (signal: Signal) => boolean;
  onSelect?: (id: string) => void;
}

/** Every signal at its mast; one that found no room for its head is a bare mast until the sheet is zoomed in. */
export function SignalsLayer({ document, geometry, placed, selected, aspectOf, isHeld, onSelect }: Props) {
  return signalsOf(document).map((signal, index) => {
    const { x, y } = geometry.at(signal.line, signal.at.tenthUm);
    const rightwards = (signal.governs === 'up') === geometry.ascends(signal.line);
    const drop = placed.signals.get(signal.id);
    const shows = aspectOf(signal, index);
    return (
      <Pickable
        key={signal.id}
        label={`Signal ${signal.name}${shows ? ` shows ${shows}` : ''}`}
        onPick={onSelect && (() => onSelect(signal.id))}
      >
        {drop === undefined ? (
          <path d={`M${x} ${y}v${rightwards ? 10 : -10}`} stroke="var(--ink)" strokeWidth="1.5">
            <title>{`${signal.name}: zoom in to see it`}</title>
          </path>
        ) : (
          <SignalHead
            x={x}
            y={y}
            rightwards={rightwards}
            drop={drop}
            shows={shows}
            name={signal.name}
            selected={selected === signal.id}
            held={isHeld(signal)}
            tentative={signal.certainty === 'tentative'}
          />
        )}
      </Pickable>
    );
  });
}
