'use client';
import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { object, string } from 'yup';
import { startIn } from '@/core/design';
import { readSpeed, type ShownUnit, showLength, showSpeed, TENTH_UM_PER_CM, type TypedLength } from '@/core/measure';
import {
  asTyped,
  type Facing,
  facingSchema,
  LONGEST_NAME,
  lengthSchema,
  textSchema,
  type Vehicle,
} from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { problemOf } from '@/ui/parts/problem-of';
import { TextField } from '@/ui/parts/text-field';
import { blockOptions, facingOptions } from '@/ui/reasoning/options';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** Axles this far from each end of a vehicle, where nothing was measured. */
const AXLE_INSET = 2 * TENTH_UM_PER_CM;
const ENGINE = 15 * TENTH_UM_PER_CM;

const seenAtBothEnds = (name: string, length: number, grams: number, unit: ShownUnit): Omit<Vehicle, 'id'> => ({
  name,
  length: asTyped(length, unit),
  axles: [Math.min(AXLE_INSET, length / 4), length - Math.min(AXLE_INSET, length / 4)].map((at) => ({
    at: asTyped(Math.round(at), unit),
    detectable: true,
  })),
  grams,
  magnetAt: undefined,
});

interface TrainFields {
  name: string;
  length?: TypedLength;
  speed: string;
  block?: string;
  facing: Facing;
}

/** A train in its simplest form: an engine and cars that a detector sees at both ends, standing in a block. */
export function TrainForm() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const blocks = useWorkbench((s) => s.design?.blocks) ?? [];
  const [added, setAdded] = useState('');
  const unit = document.shownUnit;
  const schema = object({
    /** Room is left for what its vehicles are called after it. */
    name: textSchema(LONGEST_NAME.train - ' engine'.length),
    length: lengthSchema.test('some', 'must be more than nothing', (length) => length.tenthUm > 0),
    speed: string().test((typed = '', context) => {
      const read = readSpeed(typed, document.scale);
      return read.ok || context.createError({ message: read.problem });
    }),
    facing: facingSchema(),
  });
  const { control, register, handleSubmit, setError, setValue, formState } = useForm<TrainFields>({
    resolver: yupResolver(schema, { strict: true }) as never,
    defaultValues: { name: '', speed: showSpeed(60, unit), facing: 'up' },
  });
  const add = handleSubmit(({ name, length, speed, block, facing }) => {
    const target = blocks.find(({ id }) => id === block) ?? blocks[0];
    const read = readSpeed(speed, document.scale);
    if (!length || !read.ok) return;
    if (!target) return setError('block', { message: 'There is no block yet where it could stand.' });
    const engine = Math.min(length.tenthUm, ENGINE);
    const rest = length.tenthUm - engine;
    const called = name.trim();
    const problem = store.getState().attempt({
      do: 'add train',
      vehicles: [
        seenAtBothEnds(`${called} engine`, engine, 250, unit),
        ...(rest > 0 ? [seenAtBothEnds(`${called} cars`, rest, 200, unit)] : []),
      ],
      train: {
        name: called,
        topSpeedKmh: read.kmh,
        accelerationMmPerS2: 60,
        brakingMmPerS2: 90,
        startDelayMs: 500,
        brakingIs: 'assumed',
        start: startIn(target, facing, unit),
      },
    });
    if (problem !== undefined) return setError('name', { message: problem });
    setAdded(`${called} stands in ${target.name}. Ctrl+Z takes it back.`);
    setValue('name', '');
  });
  const { errors } = formState;
  return (
    <form onSubmit={add} onChange={() => setAdded('')} className="flex flex-col gap-2" noValidate>
      <TextField
        label="Name"
        placeholder="Milk train"
        problem={problemOf(errors.name, 'The name')}
        {...register('name')}
      />
      <Controller
        control={control}
        name="length"
        render={({ field, fieldState }) => (
          <LengthField
            label="Length over couplers"
            unit={unit}
            scale={document.scale}
            placeholder={showLength(unit === 'cm' ? 6_000_000 : 24 * 254_000, unit)}
            value={field.value}
            problem={problemOf(fieldState.error, 'The length')}
            onChange={field.onChange}
          />
        )}
      />
      <div className="flex gap-2">
        <TextField
          label="Top speed"
          className="w-1/2"
          problem={problemOf(errors.speed, 'The speed')}
          {...register('speed')}
        />
        <Controller
          control={control}
          name="block"
          render={({ field }) => (
            <Choice
              label="Stands in"
              className="w-1/2"
              value={field.value ?? blocks[0]?.id}
              options={blockOptions(blocks)}
              onChange={field.onChange}
            />
          )}
        />
      </div>
      {errors.block && (
        <p role="alert" className="text-fail">
          {errors.block.message}
        </p>
      )}
      <Controller
        control={control}
        name="facing"
        render={({ field }) => (
          <Choice label="Faces" value={field.value} options={facingOptions(document)} onChange={field.onChange} />
        )}
      />
      <p className="text-ink3">
        Assumed until measured: an axle seen at both ends of engine and cars; how fast it starts and brakes.
      </p>
      <button type="submit" className="button button-main self-start">
        Put it on the track
      </button>
      <p aria-live="polite" className="text-ok">
        {added}
      </p>
    </form>
  );
}
