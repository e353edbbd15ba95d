import { Controller } from 'react-hook-form';
import { sensorKind } from '@/core/kinds';
import { showLength } from '@/core/measure';
import { Caution } from '@/ui/parts/caution';
import { Choice } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { problemOf } from '@/ui/parts/problem-of';
import { facingOptions } from '@/ui/reasoning/options';
import { sensorOptions } from '@/ui/reasoning/sensor-selection';
import { useWorkbench } from '@/ui/state/store';
import { TOOL_OPTIONS } from './tools';
import { TurnoutFields } from './turnout-fields';
import type { useAdding } from './use-adding';

/** What is asked of a thing that is to be added. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function AddForm({ adding }: { adding: ReturnType<typeof useAdding> }) {
  const { form, tool, begin, placing, line, added, submit, onKeyDown, pointNowhere } = adding;
  const { control } = form;
  const document = useWorkbench((s) => s.document);
  const faces = tool === 'turnout' ? 'Its legs spread towards' : placing?.faces;
  return (
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
              pointNowhere();
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
      {placing?.faces && <p className="text-ink3">Enter adds it; Shift and Enter adds it for the other direction.</p>}
      {placing?.caution && <Caution work={placing.caution} />}
      {/* Its line is kept free, so that nothing beneath moves when it comes and goes. */}
      <p aria-live="polite" className="min-h-5 text-ok">
        {added}
      </p>
    </form>
  );
}
