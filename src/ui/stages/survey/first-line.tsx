'use client';
import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { boolean, object } from 'yup';
import type { ShownUnit, TypedLength } from '@/core/measure';
import { lengthSchema } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { LengthField } from '@/ui/parts/length-field';
import { layoutTicks } from '@/ui/sheet/ruler-steps';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { TextWindow } from './text-window';

const firstSchema = object({ length: lengthSchema, circuit: boolean().required() });

/** The empty layout: one sentence and one field. */
export function FirstLine() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [asText, setAsText] = useState(false);
  const { control, handleSubmit, setError, clearErrors } = useForm<{ length?: TypedLength; circuit: boolean }>({
    resolver: yupResolver(firstSchema, { strict: true }) as never,
    defaultValues: { circuit: false },
  });
  const add = handleSubmit(({ length, circuit }) => {
    const problem = store.getState().attempt({ do: 'add line', name: 'Main', length: length!, circuit });
    if (problem !== undefined) setError('length', { message: problem });
  });
  return (
    <div className="flex flex-1 flex-col items-center bg-sheet">
      <BareRuler unit={document.shownUnit} />
      <form onSubmit={add} noValidate className="mt-24 w-96 rounded-lg border border-line bg-raised p-5">
        <p className="mb-3 text-[1.05rem] font-semibold">How long is your line? Start at one end of the tape.</p>
        <Controller
          control={control}
          name="length"
          render={({ field, fieldState }) => (
            <LengthField
              label="Length"
              unit={document.shownUnit}
              scale={document.scale}
              autoFocus
              problem={fieldState.error && 'Type how long it is, as you say it: 6 m, 20 ft, 480 cm.'}
              onChange={(length) => {
                clearErrors();
                field.onChange(length);
              }}
            />
          )}
        />
        <div className="mt-2">
          <Controller
            control={control}
            name="circuit"
            render={({ field }) => (
              <CheckBox checked={field.value} onChange={field.onChange}>
                Its two ends meet: it is a circuit
              </CheckBox>
            )}
          />
        </div>
        <div className="mt-4 flex gap-2">
          <button type="submit" className="button button-main">
            Draw it
          </button>
          <button type="button" className="button" onClick={() => setAsText(true)}>
            Or take up a text
          </button>
        </div>
      </form>
      {asText && <TextWindow pasted={undefined} onClose={() => setAsText(false)} />}
    </div>
  );
}

const RULER_PX = 900;
const RULER_SPAN = { cm: 3e7, inch: 120 * 254_000 };

/** The ruler before there is anything to measure. */
function BareRuler({ unit }: { unit: ShownUnit }) {
  const scale = RULER_PX / RULER_SPAN[unit];
  const ruler = layoutTicks(0, RULER_SPAN[unit], scale, unit);
  return (
    <svg width={RULER_PX + 60} height="60" className="drawing mt-6 max-w-full" aria-hidden="true">
      <text x="28" y="30" textAnchor="end" fontWeight="650">
        {ruler.unit}
      </text>
      {ruler.ticks.map((tick) => (
        <g key={tick.at}>
          <path d={`M${40 + tick.at * scale} 36v${tick.label ? 10 : 5}`} stroke="var(--edge)" />
          {tick.label && (
            <text x={40 + tick.at * scale} y="30" textAnchor="middle">
              {tick.label}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
