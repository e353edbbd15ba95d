'use client';
import { X } from 'lucide-react';
import { useState } from 'react';
import { CheckBox } from '@/ui/parts/check-box';
import { Choice } from '@/ui/parts/choice';
import { Fold } from '@/ui/parts/fold';
import { IconButton } from '@/ui/parts/icon-button';
import { useWorkbench } from '@/ui/state/store';
import { useEdit } from './selection-parts';
import { useAsked } from './use-asked';

const ANY = 'any';
const POSITIONS = [
  { value: 'straight', says: 'straight' },
  { value: 'diverging', says: 'diverging' },
] as const;

/** Rules of somebody's own by which trains throw points: those that there are, and a form that puts one together in words. */
export function ThrowRules({ id }: { id: string }) {
  const view = useAsked(
    useWorkbench((s) => s.lookUpPoints),
    id,
  );
  const edit = useEdit();
  if (!view) return null;
  return (
    <Fold
      title={`Throw rules${view.throwRules.length > 0 ? `: ${view.throwRules.length}` : ''}`}
      open={view.throwRules.length > 0}
    >
      <ul className="flex flex-col gap-1">
        {view.throwRules.map((rule) => (
          <li key={rule.id} className="flex items-start gap-1">
            <span className="grow">{rule.says}</span>
            <IconButton
              icon={X}
              name={`Delete: ${rule.says}`}
              title="Delete"
              onClick={() => edit({ do: 'delete', id: rule.id })}
            />
          </li>
        ))}
      </ul>
      <AddThrowRule motors={view.motors} />
    </Fold>
  );
}

function AddThrowRule({ motors }: { motors: readonly { id: string; name: string }[] }) {
  const blocks = useWorkbench((s) => s.design?.blocks);
  const edit = useEdit();
  const [motor, setMotor] = useState(motors[0]?.id ?? '');
  const [into, setInto] = useState<string>();
  const [from, setFrom] = useState<string>(ANY);
  const [free, setFree] = useState<string[]>([]);
  const [position, setPosition] = useState<'straight' | 'diverging'>('diverging');
  const [unlocked, setUnlocked] = useState(false);
  const options = (blocks ?? []).map((block) => ({ value: block.id as string, says: block.name }));
  const add = () => {
    if (into === undefined) return;
    edit({
      do: 'add throw rule',
      rule: {
        motor,
        position,
        comesInto: into,
        from: from === ANY ? undefined : from,
        free,
        unlocked: unlocked || undefined,
      },
    });
  };
  return (
    <div className="mt-2 flex flex-col gap-2">
      <Choice
        label="When a train comes into"
        value={into}
        placeholder="Choose a block …"
        options={options}
        onChange={setInto}
      />
      <Choice label="from" value={from} options={[{ value: ANY, says: 'anywhere' }, ...options]} onChange={setFrom} />
      <Choice
        label="and there is free"
        value={undefined}
        placeholder={
          free.length === 0
            ? 'Nothing need be'
            : free.map((one) => options.find(({ value }) => value === one)?.says ?? one).join(', ')
        }
        options={options}
        onChange={(one) => setFree((all) => (all.includes(one) ? all.filter((other) => other !== one) : [...all, one]))}
      />
      {motors.length > 1 && (
        <Choice
          label="set"
          value={motor}
          options={motors.map((one) => ({ value: one.id, says: one.name }))}
          onChange={setMotor}
        />
      )}
      <Choice label="set it" value={position} options={POSITIONS} onChange={setPosition} />
      <CheckBox checked={unlocked} onChange={setUnlocked}>
        whatever locks it
      </CheckBox>
      <button type="button" className="button" disabled={into === undefined} onClick={add}>
        Add the rule
      </button>
    </div>
  );
}
