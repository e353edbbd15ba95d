import { yupResolver } from '@hookform/resolvers/yup';
import { type KeyboardEvent, useCallback, useEffect, useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import { SENSOR_KIND_IDS } from '@/core/kinds';
import { STEPS } from '@/core/measure';
import { asTyped, type Facing } from '@/core/survey';
import { useKeptForm } from '@/ui/state/kept';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { type AddFields, placeSchema, turnoutOf, turnoutSchema } from './add-fields';
import { TOOLS, type ToolId } from './tools';

/** Adding with one tool after the other: what is typed, what a click on the track does meanwhile, and what was said of the last thing. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: what the form adds, where and how; each choice resets those after it.
export function useAdding() {
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
  useKeptForm('what is added', form);
  const { handleSubmit, setError, setValue, getValues, clearErrors, watch } = form;
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

  /** Shift and Enter adds it for the other direction, so that both at one place are two strokes. */
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !event.shiftKey || !placing?.faces) return;
    event.preventDefault();
    const other: Facing = getValues('facing') === 'up' ? 'down' : 'up';
    void handleSubmit((fields) => add({ ...fields, facing: other }))();
  };
  const pointNowhere = () => store.getState().set({ pointed: undefined });
  return { form, tool, choose, begin, placing, line, added, submit, onKeyDown, pointNowhere };
}
