'use client';
import { useEffect, useState } from 'react';
import { FAULTS, type Fault, type FaultGroup, type FaultId } from '@/core/faults';
import { Choice } from '@/ui/parts/choice';
import { useWorkbench } from '@/ui/state/store';

const NOTHING = 'nothing';

/** Which one thing may fail, and how, while every state is looked at. */
export function FaultChoices({
  fault,
  disabled,
  onFault,
}: {
  fault: Fault | undefined;
  disabled: boolean;
  onFault: (fault: Fault | undefined) => void;
}) {
  const design = useWorkbench((s) => s.design);
  const listFaults = useWorkbench((s) => s.listFaults);
  const [groups, setGroups] = useState<FaultGroup[]>([]);
  useEffect(() => {
    if (!design) return;
    let late = false;
    void listFaults?.().then((found) => {
      if (!late) setGroups(found);
    });
    return () => {
      late = true;
    };
  }, [listFaults, design]);
  const group = groups.find((one) => one.fault === fault?.fault);
  const gone = fault !== undefined && !group?.things.some(({ id }) => id === fault.thing);
  useEffect(() => {
    if (gone && groups.length > 0) onFault(undefined);
  }, [gone, groups, onFault]);
  const choose = (next: FaultId | typeof NOTHING) => {
    const things = groups.find((one) => one.fault === next)?.things;
    onFault(next === NOTHING || !things ? undefined : { fault: next, thing: things[0]!.id });
  };
  return (
    <div className="grid gap-2">
      <p className="text-ink2">One thing may fail at any moment, and work again at any other.</p>
      <Choice
        label="What fails"
        disabled={disabled}
        value={fault?.fault ?? NOTHING}
        options={[
          { value: NOTHING, says: 'Nothing' },
          ...groups.map((one) => ({ value: one.fault, says: FAULTS[one.fault].title })),
        ]}
        onChange={choose}
      />
      {fault && group && (
        <Choice
          label="Which one"
          disabled={disabled}
          value={fault.thing}
          options={group.things.map(({ id, name }) => ({ value: id, says: name }))}
          onChange={(thing) => onFault({ fault: fault.fault, thing })}
        />
      )}
    </div>
  );
}
