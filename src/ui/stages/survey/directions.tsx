'use client';
import { useForm } from 'react-hook-form';
import { TRACK_POWER_IDS, TRACK_POWERS } from '@/core/kinds';
import { Choice } from '@/ui/parts/choice';
import { TextField } from '@/ui/parts/text-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** What people here call the two directions of the line. */
export function Directions() {
  const store = useWorkbenchStore();
  const { up, down } = useWorkbench((s) => s.document.directions);
  const { register, handleSubmit, setError, formState } = useForm({ values: { up, down } });
  const save = handleSubmit((names) => {
    if (names.up === up && names.down === down) return;
    const problem = store.getState().attempt({ do: 'name directions', ...names });
    if (problem !== undefined) setError('up', { message: problem });
  });
  return (
    <>
      <TrackPower />
      <PanelSection title="Directions">
        <form onSubmit={save} className="flex flex-wrap items-start gap-2">
          <TextField
            label="To larger distances"
            className="flex-1"
            problem={formState.errors.up?.message}
            {...register('up')}
          />
          <TextField label="To smaller ones" className="flex-1" {...register('down')} />
          <button type="submit" className="button">
            Name them
          </button>
        </form>
      </PanelSection>
    </>
  );
}

const POWERS = TRACK_POWER_IDS.map((value) => ({ value, says: TRACK_POWERS[value].says }));

/** How trains get their current: it decides what can be noticed, and whether rails can meet the wrong way round. */
function TrackPower() {
  const store = useWorkbenchStore();
  const power = useWorkbench((s) => s.document.power);
  return (
    <PanelSection title="Power">
      <Choice
        label="Trains run on"
        value={power}
        options={POWERS}
        onChange={(next) => store.getState().edit({ do: 'set power', power: next })}
      />
    </PanelSection>
  );
}
