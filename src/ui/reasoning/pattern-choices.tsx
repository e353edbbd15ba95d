'use client';
import { CHOOSABLE } from '@/core/patterns';
import { Caution } from '@/ui/parts/caution';
import { CheckBox } from '@/ui/parts/check-box';
import { Fold } from '@/ui/parts/fold';
import { useEdit } from './selection-parts';

/** The ways of working that can be chosen for a thing. */
export function PatternChoices({
  at,
  thing: { id, patterns = [] },
}: {
  at: (typeof CHOOSABLE)[number]['at'];
  thing: { id: string; patterns?: string[] };
}) {
  const edit = useEdit();
  const own = CHOOSABLE.filter((one) => one.at === at);
  const byItself = own.filter(({ automatic }) => automatic);
  const listed = (some: typeof own) =>
    some.map((one) => (
      <CheckBox
        key={one.id}
        checked={patterns.includes(one.id)}
        onChange={(on) => edit({ do: 'use pattern', id, pattern: one.id, on })}
      >
        {one.says}
      </CheckBox>
    ));
  return (
    <div className="mt-2">
      {listed(own.filter(({ automatic }) => !automatic))}
      {byItself.length > 0 && (
        <Fold
          title={`Worked by the trains${byItself.some((one) => patterns.includes(one.id)) ? '' : ': not chosen'}`}
          open={byItself.some((one) => patterns.includes(one.id))}
        >
          {listed(byItself)}
        </Fold>
      )}
      {own.some(({ id: used, wired }) => wired && patterns.includes(used)) && <Caution work="wiring" />}
    </div>
  );
}
