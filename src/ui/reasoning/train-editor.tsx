'use client';
import { useState } from 'react';
import { blockOfStart, startIn } from '@/core/design';
import { consistOf } from '@/core/detection';
import { fromMm, layoutSpeedMmPerS, readSpeed, showLength, showNumber, stoppingDistanceMm } from '@/core/measure';
import type { Train } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { Term } from '@/ui/parts/term';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { blockOptions, facingOptions } from './options';
import { PanelSection, PanelTitle } from './panel';

/** What a detector sees of a train, how it stops, and where it starts. */
export function TrainEditor({ train }: { train: Train }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const design = useWorkbench((s) => s.design);
  const [speed, setSpeed] = useState(`${showNumber(train.topSpeedKmh, 1)} km/h`);
  const [problem, setProblem] = useState('');
  const consist = consistOf(document, train);
  const shown = (mm: number) => showLength(fromMm(mm), document.shownUnit);
  const change = (what: Partial<Omit<Train, 'id' | 'vehicles'>>) =>
    store.getState().edit({ do: 'change train', id: train.id, change: what });
  const block = design && blockOfStart(design.blocks, train);
  const commitSpeed = () => {
    const read = readSpeed(speed, document.scale);
    setProblem(read.ok ? '' : read.problem);
    if (read.ok && Math.abs(read.kmh - train.topSpeedKmh) > 0.05) change({ topSpeedKmh: Math.max(1, read.kmh) });
  };
  const mmPerS = layoutSpeedMmPerS(train.topSpeedKmh, document.scale);
  const facts: [string, string][] = [
    ['Length', shown(consist.lengthMm)],
    ['Axles that a detector sees', String(consist.axlesMm.length)],
    ['Longest stretch unseen', shown(consist.blindMm)],
    ['Unseen at its tail', shown(consist.unseenTailMm)],
    ['Stops from top speed within', shown(stoppingDistanceMm(mmPerS, 0, train.brakingMmPerS2))],
  ];
  return (
    <>
      <PanelTitle>{train.name}</PanelTitle>
      <dl>
        {facts.map(([name, value]) => (
          <div key={name} className="flex justify-between border-b border-hair py-1">
            <dt>{name}</dt>
            <dd className="font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-ink3">
        {showNumber(mmPerS / 10, 3)}² ÷ (2 × {showNumber(train.brakingMmPerS2 / 10, 2)}) in cm/s and cm/s²; braking{' '}
        {train.brakingIs}. A <Term word="resistor">resistor axle</Term> makes a car seen.
      </p>
      <PanelSection title="Where it starts">
        <div className="flex gap-2">
          <Choice
            label="Stands in"
            className="w-1/2"
            value={block?.name ?? ''}
            options={[{ value: '', says: 'off the track' }, ...blockOptions(design?.blocks)]}
            onChange={(name) => {
              const target = design?.blocks.find((b) => b.name === name);
              change({ start: target && startIn(target, train.start?.facing ?? 'up') });
            }}
          />
          <Choice
            label="Faces"
            className="w-1/2"
            disabled={!block}
            value={train.start?.facing ?? 'up'}
            options={facingOptions(document)}
            onChange={(facing) => block && change({ start: startIn(block, facing) })}
          />
        </div>
      </PanelSection>
      <PanelSection title="How it runs">
        <label className="flex flex-col gap-1">
          <span className="text-ink2">Top speed</span>
          <input
            className="field"
            value={speed}
            onChange={(e) => setSpeed(e.target.value)}
            onBlur={commitSpeed}
            onKeyDown={(e) => e.key === 'Enter' && commitSpeed()}
          />
        </label>
        {problem && (
          <p role="alert" className="text-fail">
            {problem}
          </p>
        )}
        <RateField
          label="Braking, mm/s² on the layout"
          value={train.brakingMmPerS2}
          onChange={(brakingMmPerS2) => change({ brakingMmPerS2, brakingIs: 'measured' })}
        />
        <RateField
          label="Starting, mm/s² on the layout"
          value={train.accelerationMmPerS2}
          onChange={(accelerationMmPerS2) => change({ accelerationMmPerS2 })}
        />
      </PanelSection>
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

function RateField({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => void }) {
  return (
    <label className="mt-2 flex flex-col gap-1">
      <span className="text-ink2">{label}</span>
      <input
        type="number"
        className="field"
        min={1}
        max={5000}
        defaultValue={value}
        key={value}
        onBlur={(e) => {
          const next = Number(e.target.value);
          if (Number.isFinite(next) && next >= 1 && next <= 5000) {
            if (next !== value) onChange(next);
          } else e.target.value = String(value);
        }}
      />
    </label>
  );
}
