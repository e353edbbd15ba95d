'use client';
import { type FormEvent, useState } from 'react';
import { startIn } from '@/core/design';
import { cm, readSpeed, type TypedLength } from '@/core/measure';
import { asTyped, type Vehicle } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { TextField } from '@/ui/parts/text-field';
import { blockOptions, facingOptions } from '@/ui/reasoning/options';
import { blockNameOf } from '@/ui/state/selection';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** Axles this far from each end of a vehicle, where nothing was measured. */
const AXLE_INSET = 200_000;

const seenAtBothEnds = (name: string, length: number, grams: number): Omit<Vehicle, 'id'> => ({
  name,
  length: asTyped(length),
  axles: [Math.min(AXLE_INSET, length / 4), length - Math.min(AXLE_INSET, length / 4)].map((at) => ({
    at: asTyped(Math.round(at)),
    detectable: true,
  })),
  grams,
  magnetAt: undefined,
});

/** A train in its simplest form: an engine and cars that a detector sees at both ends, standing in the selected block. */
export function TrainForm() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const design = useWorkbench((s) => s.design);
  const selected = useWorkbench((s) => s.selected);
  const [name, setName] = useState('');
  const [length, setLength] = useState<TypedLength>();
  const [speed, setSpeed] = useState('60 km/h');
  const [facing, setFacing] = useState<'up' | 'down'>('up');
  const [block, setBlock] = useState('');
  const [problem, setProblem] = useState('');
  const target = design?.blocks.find((b) => b.name === (block || blockNameOf(selected))) ?? design?.blocks[0];

  const submit = (event: FormEvent) => {
    event.preventDefault();
    const read = readSpeed(speed, document.scale);
    if (!read.ok) return setProblem(read.problem);
    if (!name.trim()) return setProblem('Give the train a name.');
    if (!length || !target) return setProblem('Say how long the train is, and where it stands.');
    if (length.tenthUm === 0) return setProblem('A train needs a length.');
    const engine = Math.min(length.tenthUm, 1_500_000);
    const rest = length.tenthUm - engine;
    const vehicles = [
      seenAtBothEnds(`${name.trim()} engine`, engine, 250),
      ...(rest > 0 ? [seenAtBothEnds(`${name.trim()} cars`, rest, 200)] : []),
    ];
    setProblem('');
    const ok = store.getState().edit({
      do: 'add train',
      vehicles,
      train: {
        name: name.trim(),
        topSpeedKmh: read.kmh,
        accelerationMmPerS2: 60,
        brakingMmPerS2: 90,
        startDelayMs: 500,
        brakingIs: 'assumed',
        start: startIn(target, facing),
      },
    });
    if (ok) setName('');
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-2">
      <TextField label="Name" value={name} onChange={(e) => setName(e.target.value)} placeholder="Milk train" />
      <LengthField
        label="Length over couplers"
        unit={document.shownUnit}
        scale={document.scale}
        onChange={setLength}
        placeholder={cm(60).typed}
      />
      <div className="flex gap-2">
        <TextField label="Top speed" className="w-1/2" value={speed} onChange={(e) => setSpeed(e.target.value)} />
        <Choice
          label="Stands in"
          className="w-1/2"
          value={target?.name}
          options={blockOptions(design?.blocks)}
          onChange={setBlock}
        />
      </div>
      <Choice label="Faces" value={facing} options={facingOptions(document)} onChange={setFacing} />
      <p className="text-ink3">
        Assumed until measured: an axle seen at both ends of engine and cars, starting at 60 and braking at 90 mm/s².
      </p>
      {problem && (
        <p role="alert" className="text-fail">
          {problem}
        </p>
      )}
      <button type="submit" className="button button-main self-start">
        Put it on the track
      </button>
    </form>
  );
}
