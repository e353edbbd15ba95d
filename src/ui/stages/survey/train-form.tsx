'use client';
import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { object, string } from 'yup';
import { startIn } from '@/core/design';
import { VEHICLE_KIND_IDS, VEHICLES, type VehicleKindId } from '@/core/kinds';
import { readSpeed, showSpeed, type TypedLength } from '@/core/measure';
import { likelyLength, vehiclesSaid } from '@/core/roster';
import { type Facing, facingSchema, LONGEST_NAME, lengthSchema, MOST_VEHICLES, textSchema } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { problemOf } from '@/ui/parts/problem-of';
import { TextField } from '@/ui/parts/text-field';
import { blockOptions, facingOptions } from '@/ui/reasoning/options';
import { useKeptForm } from '@/ui/state/kept';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { FormLength } from './form-length';

const KINDS = VEHICLE_KIND_IDS.map((value) => ({ value, says: VEHICLES[value].title }));
const someLength = lengthSchema.test('some', 'must be more than nothing', (length) => length.tenthUm > 0);
const wholeTo = (most: number) => ({
  name: 'whole',
  message: `must be a whole number from 0 to ${most}`,
  test: (typed?: string) => /^\d+$/.test(typed?.trim() ?? '') && Number(typed) <= most,
});

interface TrainFields {
  name: string;
  engine?: TypedLength;
  cars: string;
  kind: VehicleKindId;
  carLength?: TypedLength;
  plastic: string;
  speed: string;
  block?: string;
  facing: Facing;
}

/** A train as a newcomer has it: an engine and cars alike, standing in a block. What was not said is assumed. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function TrainForm() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const blocks = useWorkbench((s) => s.design?.blocks) ?? [];
  const [added, setAdded] = useState('');
  const unit = document.shownUnit;
  const schema = object({
    /** Room is left for what its vehicles are called after it. */
    name: textSchema(LONGEST_NAME.train - ' engine'.length),
    engine: someLength,
    cars: string().test(wholeTo(MOST_VEHICLES - 1)),
    carLength: someLength,
    plastic: string()
      .test(wholeTo(MOST_VEHICLES - 1))
      .test(
        (typed, { parent, createError }) =>
          Number(typed) <= Number(parent.cars) || createError({ message: `are more than the ${parent.cars} cars` }),
      ),
    speed: string().test((typed = '', context) => {
      const read = readSpeed(typed, document.scale);
      return read.ok || context.createError({ message: read.problem });
    }),
    facing: facingSchema(),
  });
  const form = useForm<TrainFields>({
    resolver: yupResolver(schema, { strict: true }) as never,
    defaultValues: {
      name: '',
      engine: likelyLength('engine', document),
      cars: '0',
      kind: 'wagon',
      carLength: likelyLength('wagon', document),
      plastic: '0',
      speed: showSpeed(60, unit),
      facing: 'up',
    },
  });
  const { control, register, handleSubmit, setError, setValue, formState } = form;
  useKeptForm('new train', form);
  const add = handleSubmit(({ name, engine, cars, kind, carLength, plastic, speed, block, facing }) => {
    const target = blocks.find(({ id }) => id === block) ?? blocks[0];
    const read = readSpeed(speed, document.scale);
    if (!engine || !carLength || !read.ok) return;
    if (!target) return setError('block', { message: 'There is no block yet where it could stand.' });
    const called = name.trim();
    const said = { name: called, engine, cars: Number(cars), kind, carLength, plastic: Number(plastic) };
    const problem = store.getState().attempt({
      do: 'add train',
      vehicles: vehiclesSaid(said, document),
      train: {
        name: called,
        topSpeedKmh: read.kmh,
        accelerationMmPerS2: 60,
        brakingMmPerS2: 90,
        startDelayMs: 500,
        measured: [],
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
      <FormLength control={control} name="engine" label="Engine, over couplers" what="The length" />
      <div className="flex gap-2">
        <TextField
          label="Cars behind it"
          inputMode="numeric"
          className="w-1/2"
          problem={problemOf(errors.cars, 'They')}
          {...register('cars')}
        />
        <Controller
          control={control}
          name="kind"
          render={({ field }) => (
            <Choice
              label="Each is a"
              className="w-1/2"
              value={field.value}
              options={KINDS}
              onChange={(kind) => {
                field.onChange(kind);
                setValue('carLength', likelyLength(kind, document));
              }}
            />
          )}
        />
      </div>
      <FormLength control={control} name="carLength" label="Each car, over couplers" what="The length" />
      <TextField
        label="With plastic wheels, the last ones of them"
        inputMode="numeric"
        problem={problemOf(errors.plastic, 'They')}
        {...register('plastic')}
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
        Assumed until measured: where its axles lie, and how it starts and brakes. Of cars nothing is seen until they
        have lamps or resistor axles: where that is unsafe a finding says so, and fits them.
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
