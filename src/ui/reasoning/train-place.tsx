'use client';
import { type ReactNode, useState } from 'react';
import { showLength, TENTH_UM_PER_CM } from '@/core/measure';
import type { Facing, LayoutDocument, Line, Train } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { RadioList } from '@/ui/parts/one-of';
import { SlideBar } from '@/ui/parts/slide-bar';

/** How far apart the places are that are looked at. */
export const STEP = TENTH_UM_PER_CM;

/** One train put somewhere by hand. */
export interface TrainPlace {
  train: Train;
  line: Line;
  /** Of its nose. */
  at: number;
  facing: Facing;
  /** Somebody has moved it from where it stands at the start. */
  moved: boolean;
  moveTo(at: number): void;
  fields: ReactNode;
}

/** Chooses a train, a line and a direction, and moves the train along with a bar; nothing where there is no train or no line. */
export function useTrainPlace({ trains, lines, directions, shownUnit }: LayoutDocument): TrainPlace | undefined {
  const [id, setId] = useState<string>();
  const train = trains.find((one) => one.id === id) ?? trains[0];
  const [on, setOn] = useState<string>();
  const line = lines.find((one) => one.id === on) ?? lines.find((one) => one.id === train?.start?.line) ?? lines[0];
  const [facing, setFacing] = useState<Facing>('up');
  const [moved, setMoved] = useState<number>();
  const at = Math.min(moved ?? train?.start?.at.tenthUm ?? 0, line?.length.tenthUm ?? 0);
  if (!train || !line) return undefined;
  const fields = (
    <div className="flex flex-col gap-2">
      <Choice
        label="Train"
        value={train.id}
        options={trains.map((one) => ({ value: one.id, says: one.name }))}
        onChange={setId}
      />
      <Choice
        label="Its nose on"
        value={line.id}
        options={lines.map((one) => ({ value: one.id, says: one.name }))}
        onChange={setOn}
      />
      <RadioList
        inline
        label="Facing"
        value={facing}
        options={[
          { value: 'up', says: directions.up },
          { value: 'down', says: directions.down },
        ]}
        onChange={setFacing}
      />
      <div className="flex items-center gap-2">
        <SlideBar
          name="Place of its nose"
          spoken={showLength(at, shownUnit)}
          most={line.length.tenthUm}
          step={STEP}
          value={at}
          onChange={setMoved}
        />
        <span className="w-16 text-right tabular-nums">{showLength(at, shownUnit)}</span>
      </div>
    </div>
  );
  return { train, line, at, facing, moved: moved !== undefined, moveTo: setMoved, fields };
}
