'use client';
import { CheckBox } from '@/ui/parts/check-box';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const NONE: readonly string[] = [];

/** Posts from which signals are cleared: taken and left, and their buttons pressed, by hand. */
export function Posts() {
  const store = useWorkbenchStore();
  const posts = useWorkbench((s) => s.design?.posts);
  const manned = useWorkbench((s) => s.trial.manned) ?? NONE;
  const given = useWorkbench((s) => s.trial.given) ?? NONE;
  const put = (field: 'manned' | 'given', id: string, on: boolean) => {
    const { trial, set } = store.getState();
    const rest = (trial[field] ?? NONE).filter((other) => other !== id);
    set({ trial: { ...trial, [field]: on ? [...rest, id] : rest } });
  };
  return posts?.map(({ id, name, whenEmpty, signals }) => (
    <div key={id} className="mt-2 border-t border-hair pt-2">
      <CheckBox checked={manned.includes(id)} onChange={(on) => put('manned', id, on)}>
        Somebody is at the post of {name}
      </CheckBox>
      {manned.includes(id) ? (
        signals.map((signal) => (
          <CheckBox key={signal.id} checked={given.includes(signal.id)} onChange={(on) => put('given', signal.id, on)}>
            {signal.name} was cleared for a train a moment ago
          </CheckBox>
        ))
      ) : (
        <p className="text-ink2">
          {whenEmpty === 'caution'
            ? 'Its signals let trains come in on sight meanwhile.'
            : 'Its signals stay at stop meanwhile: crews ask the person in charge.'}
        </p>
      )}
    </div>
  ));
}
