'use client';
import { yupResolver } from '@hookform/resolvers/yup';
import { type KeyboardEvent, useCallback, useEffect, useRef, useState } from 'react';
import { Controller, FormProvider, useForm } from 'react-hook-form';
import { SENSOR_KIND_IDS, sensorKind } from '@/core/kinds';
import { STEPS, showLength } from '@/core/measure';
import { asTyped, type Facing } from '@/core/survey';
import { Caution } from '@/ui/parts/caution';
import { Choice } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { OneOf } from '@/ui/parts/one-of';
import { problemOf } from '@/ui/parts/problem-of';
import { facingOptions } from '@/ui/reasoning/options';
import { sensorOptions } from '@/ui/reasoning/sensor-selection';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { type AddFields, placeSchema, turnoutOf, turnoutSchema } from './add-fields';
import { LineFields } from './line-fields';
import { Standing } from './standing';
import { TOOL_OPTIONS, TOOLS, type ToolId } from './tools';
import { TurnoutFields } from './turnout-fields';

/** Adding things: by typing a distance, or by pointing at the track while a tool is chosen. */
export function AddPanel() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [tool, setTool] = useState<ToolId>('look');
  const [added, setAdded] = useState('');
  const form = useForm<AddFields>({
    resolver: yupResolver(tool === 'turnout' ? turnoutSchema : placeSchema, { strict: true }) as never,
    defaultValues: {
      line: document.referenceLine,
      facing: 'up',
      sensor: SENSOR_KIND_IDS[0]!,
      hand: 'right',
      leads: 'back',
      trackName: '',
      clearance: asTyped(STEPS[document.shownUnit].clearance, document.shownUnit),
    },
  });
  const { control, handleSubmit, setError, setValue, getValues, clearErrors, watch } = form;
  const typedLine = watch('line');
  const line = document.lines.some(({ id }) => id === typedLine) ? typedLine : document.referenceLine;
  useEffect(() => setValue('line', line), [line, setValue]);
  /** What was said of the last thing goes as soon as the next is begun. */
  const begin = useCallback(() => {
    setAdded('');
    clearErrors();
  }, [clearErrors]);
  const choose = useCallback(
    (next: ToolId) => {
      begin();
      setTool(next);
    },
    [begin],
  );
  const placing = tool === 'look' || tool === 'turnout' ? undefined : TOOLS[tool];
  const add = (fields: AddFields) => {
    const { attempt, design, set } = store.getState();
    const edit =
      tool === 'turnout' ? turnoutOf(fields) : placing?.edit({ ...fields, at: fields.at! }, design, document.shownUnit);
    if (!edit) return;
    const problem = attempt(edit);
    if (problem === undefined) set({ pointed: undefined, problem: undefined });
    else setError('at', { message: problem });
    setAdded(problem === undefined ? `Added at ${fields.at!.typed}. Ctrl+Z takes it back.` : '');
  };
  const submit = handleSubmit(add);

  const place = ({ line: on, at }: { line: string; at: number }) => {
    const step = STEPS[document.shownUnit].point;
    const most = document.lines.find(({ id }) => id === on)!.length.tenthUm;
    const there = asTyped(Math.min(most, Math.round(at / step) * step), document.shownUnit);
    begin();
    setValue('line', on);
    setValue('at', there);
    if (tool === 'turnout') store.getState().set({ pointed: { line: on, at: there.tenthUm } });
    else add({ ...getValues(), line: on, at: there });
  };
  const present = useRef(place);
  present.current = place;
  /** While a tool is chosen, pointing at the track uses it there; a turnout needs more to be told first. */
  useEffect(() => {
    if (tool === 'look') return;
    const { set } = store.getState();
    set({ place: (at) => present.current(at) });
    return () => set({ place: undefined, pointed: undefined });
  }, [tool, store]);

  const faces = tool === 'turnout' ? 'Its legs spread towards' : placing?.faces;
  /** Shift and Enter adds it for the other direction, so that both at one place are two strokes. */
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !event.shiftKey || !placing?.faces) return;
    event.preventDefault();
    const other: Facing = getValues('facing') === 'up' ? 'down' : 'up';
    void handleSubmit((fields) => add({ ...fields, facing: other }))();
  };
  return (
    <FormProvider {...form}>
      <OneOf label="What to add" value={tool} options={TOOL_OPTIONS} onChange={choose} />
      <p className="mt-2 text-ink2">
        {tool === 'look'
          ? 'Choose what to add, or click on a thing to look at it.'
          : 'Click on the track, or type a distance from the start of its line, as you say it: 96 cm, 38 1/2", 3 ft 2 in, 40 scale ft.'}
      </p>
      {tool !== 'look' && (
        <form onSubmit={submit} onKeyDown={onKeyDown} className="mt-2 flex flex-col gap-2" noValidate>
          <Controller
            control={control}
            name="line"
            render={({ field }) => (
              <Choice
                label="On line"
                value={line}
                options={document.lines.map((l) => ({
                  value: l.id,
                  says: `${l.name}, ${showLength(l.length.tenthUm, document.shownUnit)}`,
                }))}
                onChange={(id) => {
                  begin();
                  field.onChange(id);
                }}
              />
            )}
          />
          <Controller
            control={control}
            name="at"
            render={({ field, fieldState }) => (
              <LengthField
                label={tool === 'turnout' ? 'Blade tips at' : 'At'}
                unit={document.shownUnit}
                scale={document.scale}
                value={field.value}
                problem={problemOf(fieldState.error, 'The distance')}
                onChange={(at) => {
                  begin();
                  store.getState().set({ pointed: undefined });
                  field.onChange(at);
                }}
              />
            )}
          />
          {faces && (
            <Controller
              control={control}
              name="facing"
              render={({ field }) => (
                <Choice
                  label={faces}
                  value={field.value}
                  options={facingOptions(document)}
                  onChange={(facing) => {
                    begin();
                    field.onChange(facing);
                  }}
                />
              )}
            />
          )}
          {placing?.kinds && (
            <Controller
              control={control}
              name="sensor"
              render={({ field }) => (
                <>
                  <Choice
                    label="Kind"
                    value={field.value}
                    options={sensorOptions}
                    onChange={(kind) => {
                      begin();
                      field.onChange(kind);
                    }}
                  />
                  <p className="text-ink2">{sensorKind(field.value).means}</p>
                </>
              )}
            />
          )}
          {tool === 'turnout' && <TurnoutFields onBegin={begin} />}
          <button type="submit" className="button button-main self-start">
            Add the{' '}
            {TOOL_OPTIONS.find(({ value }) => value === tool)!
              .says!.toString()
              .toLowerCase()}
          </button>
          {placing?.faces && (
            <p className="text-ink3">Enter adds it; Shift and Enter adds it for the other direction.</p>
          )}
          {placing?.caution && <Caution work={placing.caution} />}
          {/* Its line is kept free, so that nothing beneath moves when it comes and goes. */}
          <p aria-live="polite" className="min-h-5 text-ok">
            {added}
          </p>
        </form>
      )}
      <LineFields key={line} line={line} />
      <Standing />
    </FormProvider>
  );
}
