'use client';
import { useState } from 'react';
import { blockOfStart, startIn } from '@/core/design';
import { consistOf, unseenOf } from '@/core/detection';
import {
  fromMm,
  layoutSpeedMmPerS,
  mmOf,
  readSpeed,
  type StoppingTerm,
  showLength,
  showNumber,
  showSpeed,
  stoppingNeed,
} from '@/core/measure';
import { asTyped, RUNNING, type Train } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Choice } from '@/ui/parts/choice';
import { Fold } from '@/ui/parts/fold';
import { LengthField } from '@/ui/parts/length-field';
import { Term } from '@/ui/parts/term';
import { TextField } from '@/ui/parts/text-field';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { NumberField } from './number-field';
import { blockOptions, facingOptions } from './options';
import { PanelSection, PanelTitle } from './panel';
import { TrainStrip } from './train-strip';

type Running = Train['measured'][number];

/** What a detector sees of a train, how it stops, and where it starts. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function TrainEditor({ train }: { train: Train }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const design = useWorkbench((s) => s.design);
  const [speed, setSpeed] = useState(showSpeed(train.topSpeedKmh, document.shownUnit, 1));
  const [problem, setProblem] = useState<string>();
  const [tooShort, setTooShort] = useState<string>();
  const consist = consistOf(document, train);
  const unseen = unseenOf(document, consist);
  const shown = (mm: number) => showLength(fromMm(mm), document.shownUnit);
  const change = (what: Partial<Omit<Train, 'id' | 'vehicles'>>) =>
    store.getState().edit({ do: 'change train', id: train.id, change: what });
  /** What is typed in was measured, until somebody says that it was not. */
  const withMeasured = (fact: Running): Running[] => [...new Set([...train.measured, fact])];
  const block = design && blockOfStart(design.blocks, train);
  const commitSpeed = () => {
    const read = readSpeed(speed, document.scale);
    setProblem(read.ok ? undefined : read.problem);
    if (read.ok && Math.abs(read.kmh - train.topSpeedKmh) > 0.05)
      change({ topSpeedKmh: Math.max(1, read.kmh), measured: withMeasured('top speed') });
  };
  const mmPerS = layoutSpeedMmPerS(train.topSpeedKmh, document.scale);
  const need = stoppingNeed(mmPerS, train.brakingMmPerS2);
  const [braking] = need.terms as [StoppingTerm];
  const unit = document.shownUnit === 'cm' ? 'cm' : 'in';
  const perSecond = (mm: number) => showNumber(mm / (unit === 'cm' ? 10 : 25.4), 2);
  const facts: [string, string][] = [
    ['Length', shown(consist.lengthMm)],
    ['Axles that draw current', String(consist.parts.current.length)],
    ['Longest stretch unseen', shown(unseen.blindMm)],
    ['Unseen at its tail', shown(unseen.tailMm)],
  ];
  return (
    <>
      <PanelTitle>{train.name}</PanelTitle>
      <TrainStrip document={document} train={train} />
      <dl>
        {facts.map(([name, value]) => (
          <div key={name} className="flex justify-between border-b border-hair py-1">
            <dt>{name}</dt>
            <dd className="font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
      <Fold title={`Needs ${shown(need.totalMm)} to stop, at its fastest`}>
        <dl>
          {need.terms.map(({ says, mm }) => (
            <div key={says} className="flex justify-between gap-2">
              <dt>{says}</dt>
              <dd className="whitespace-nowrap">{shown(mm)}</dd>
            </div>
          ))}
        </dl>
        <p className="text-ink3">
          Signals, gaps and lift-outs are all held against this one figure. Each part is rounded to be shown.
        </p>
      </Fold>
      <p className="mt-1 text-ink3">
        {perSecond(mmPerS)}² ÷ (2 × {perSecond(train.brakingMmPerS2)}), in {unit}/s and {unit}/s², is its braking
        distance; braking {train.measured.includes('braking') ? 'measured' : 'assumed'}. A{' '}
        <Term word="resistor">resistor axle</Term> makes a car seen.
      </p>
      <PanelSection title="Where it starts">
        <div className="flex flex-col gap-2">
          <Choice
            label="Stands in"
            value={block?.id ?? ''}
            options={[{ value: '', says: 'off the track' }, ...blockOptions(design?.blocks)]}
            onChange={(id) => {
              const target = design?.blocks.find((b) => b.id === id);
              change({ start: target && startIn(target, train.start?.facing ?? 'up', document.shownUnit) });
            }}
          />
          <Choice
            label="Faces"
            disabled={!block}
            value={train.start?.facing ?? 'up'}
            options={facingOptions(document)}
            onChange={(facing) => block && change({ start: startIn(block, facing, document.shownUnit) })}
          />
        </div>
      </PanelSection>
      <PanelSection title="How it runs">
        <div className="flex flex-col gap-2">
          <TextField
            label="Top speed"
            value={speed}
            problem={problem}
            onChange={(e) => setSpeed(e.target.value)}
            onBlur={commitSpeed}
            onKeyDown={(e) => e.key === 'Enter' && commitSpeed()}
          />
          <LengthField
            label="Braking distance from top speed"
            unit={document.shownUnit}
            scale={document.scale}
            value={asTyped(fromMm(braking.mm), document.shownUnit)}
            problem={tooShort}
            onCommit={({ tenthUm }) => {
              const brakingMmPerS2 = (mmPerS * mmPerS) / (2 * mmOf(tenthUm));
              const possible = brakingMmPerS2 >= 1 && brakingMmPerS2 <= 5000;
              setTooShort(possible ? undefined : 'No train can brake so. Measure it again.');
              if (possible) change({ brakingMmPerS2, measured: withMeasured('braking') });
            }}
          />
          <NumberField
            key={train.accelerationMmPerS2}
            label="It reaches top speed within, in seconds"
            value={mmPerS / train.accelerationMmPerS2}
            least={0.1}
            most={600}
            onCommit={(seconds) =>
              change({
                accelerationMmPerS2: Math.min(5000, Math.max(1, mmPerS / seconds)),
                measured: withMeasured('acceleration'),
              })
            }
          />
          <NumberField
            key={`delay ${train.startDelayMs}`}
            label="It starts after the order by, in seconds"
            value={train.startDelayMs / 1000}
            least={0}
            most={60}
            onCommit={(seconds) =>
              change({ startDelayMs: Math.round(seconds * 1000), measured: withMeasured('start delay') })
            }
          />
          <fieldset>
            <legend className="text-ink2">Measured, not assumed</legend>
            {RUNNING.map((fact) => (
              <CheckBox
                key={fact}
                checked={train.measured.includes(fact)}
                onChange={(on) =>
                  change({ measured: on ? withMeasured(fact) : train.measured.filter((other) => other !== fact) })
                }
              >
                {fact}
              </CheckBox>
            ))}
          </fieldset>
        </div>
      </PanelSection>
      <button
        type="button"
        className="button mr-2 mt-3"
        onClick={() => store.getState().edit({ do: 'turn train', id: train.id })}
      >
        Turn it round
      </button>
      <button
        type="button"
        className="button mt-3"
        onClick={() => {
          if (store.getState().edit({ do: 'delete', id: train.id })) store.getState().select(undefined);
        }}
      >
        Delete {train.name}
      </button>
    </>
  );
}
