import { memo } from 'react';
import type { AspectSystem } from '@/core/kinds';
import { names } from '@/core/patterns';
import { type LayoutDocument, type Signal, signalsOf, systemOf } from '@/core/survey';
import { Pickable } from './pickable';
import { type Placed, standsAbove } from './plan-labels';
import type { SheetGeometry } from './sheet-geometry';
import { aspectOf, Lamp, litLamps, SignalHead } from './signal-head';

interface Props {
  document: LayoutDocument;
  geometry: SheetGeometry;
  placed: Placed;
  chosen: ReadonlySet<string>;
  /** What each signal shows, in the order of the document; undefined where nothing is known. */
  aspects: (string | undefined)[];
  /** Which are held at stop by hand. */
  held?: boolean[];
  /** What people see beside the aspects: “dark” for a signal whose lamps are not lit. */
  dark?: Record<string, string>;
  onSelect?: (id: string) => void;
}

/** Every signal at its mast; one that found no room for its head is a mast with its arrow, and a lamp for what it shows. */
export const SignalsLayer = memo(function SignalsLayer(props: Props) {
  const { document, geometry, placed, chosen, aspects, held, dark, onSelect } = props;
  const own = new Set(document.rules.map(({ name }) => name.split('.')[1]));
  return signalsOf(document).map((signal, index) => (
    <SignalMark
      key={signal.id}
      signal={signal}
      system={systemOf(document, signal.system)}
      geometry={geometry}
      drop={placed.signals.get(signal.id)}
      shows={dark?.[names.lighting(signal)] === 'dark' ? undefined : aspects[index]}
      held={held?.[index] ?? false}
      own={own.has(signal.id)}
      side={document.signalSide}
      selected={chosen.has(signal.id)}
      onSelect={onSelect}
    />
  ));
});

const SignalMark = memo(function SignalMark({
  signal,
  system,
  geometry,
  drop,
  shows,
  held,
  own,
  side,
  selected,
  onSelect,
}: {
  signal: Signal;
  system: AspectSystem;
  side: LayoutDocument['signalSide'];
  geometry: SheetGeometry;
  drop: number | undefined;
  shows: string | undefined;
  held: boolean;
  /** A rule of somebody’s own stands in the place of one of its rules. */
  own: boolean;
  selected: boolean;
  onSelect?: (id: string) => void;
}) {
  const { x, y } = geometry.at(signal.line, signal.at.tenthUm);
  if (!geometry.isNear(x)) return null;
  const rightwards = (signal.governs === 'up') === geometry.ascends(signal.line);
  const above = standsAbove(side, rightwards);
  return (
    <Pickable
      thing={signal.id}
      label={`Signal ${signal.name}${shows ? ` shows ${shows}` : ''}`}
      onPick={onSelect && (() => onSelect(signal.id))}
    >
      {drop === undefined ? (
        <>
          <title>{`${signal.name}: zoom in to see it whole`}</title>
          <path
            d={`M${x} ${y}v${above ? -13 : 13}m0 0h${rightwards ? 4 : -4}l${rightwards ? -3 : 3} -3m${rightwards ? 3 : -3} 3l${rightwards ? -3 : 3} 3`}
            stroke={selected ? 'var(--accent)' : 'var(--ink)'}
            strokeWidth={selected ? 2.4 : 1.5}
            fill="none"
          />
          {litLamps(system, shows).map((lamp, i) => (
            <Lamp
              key={lamp}
              {...system.lamps[lamp]!}
              lit
              flashes={aspectOf(system, shows)?.flashing?.includes(lamp)}
              x={x + (rightwards ? -5 : 5) * (1 + 2 * i)}
              y={y + (above ? -13 : 13)}
            />
          ))}
        </>
      ) : (
        <SignalHead
          x={x}
          y={y}
          rightwards={rightwards}
          drop={drop}
          system={system}
          shows={shows}
          name={own ? `${signal.name} own` : signal.name}
          selected={selected}
          held={held}
          tentative={signal.certainty === 'tentative'}
        />
      )}
    </Pickable>
  );
});
