import { memo } from 'react';
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
  /** What each signal shows, in the order of the document; undefined where nothing is known. */
  aspects: (Aspect | undefined)[];
  /** Which are held at stop by hand. */
  held?: boolean[];
  onSelect?: (id: string) => void;
}

/** Every signal at its mast; one that found no room for its head is a bare mast until the sheet is zoomed in. */
export const SignalsLayer = memo(function SignalsLayer(props: Props) {
  const { document, geometry, placed, selected, aspects, held, onSelect } = props;
  return signalsOf(document).map((signal, index) => (
    <SignalMark
      key={signal.id}
      signal={signal}
      geometry={geometry}
      drop={placed.signals.get(signal.id)}
      shows={aspects[index]}
      held={held?.[index] ?? false}
      selected={selected === signal.id}
      onSelect={onSelect}
    />
  ));
});

const SignalMark = memo(function SignalMark({
  signal,
  geometry,
  drop,
  shows,
  held,
  selected,
  onSelect,
}: {
  signal: Signal;
  geometry: SheetGeometry;
  drop: number | undefined;
  shows: Aspect | undefined;
  held: boolean;
  selected: boolean;
  onSelect?: (id: string) => void;
}) {
  const { x, y } = geometry.at(signal.line, signal.at.tenthUm);
  if (!geometry.isNear(x)) return null;
  const rightwards = (signal.governs === 'up') === geometry.ascends(signal.line);
  return (
    <Pickable
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
          selected={selected}
          held={held}
          tentative={signal.certainty === 'tentative'}
        />
      )}
    </Pickable>
  );
});
