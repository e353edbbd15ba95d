'use client';
import { names } from '@/core/patterns';
import { useWorkbench } from '@/ui/state/store';
import { Answer } from './answer';
import { ItsRules } from './its-rules';
import { PanelSection } from './panel';
import { PatternOptions } from './pattern-options';
import { useAsked } from './use-asked';

/** What holds the motors of points, and whether it does so now; and their rules. */
export function PointsHeld({ id }: { id: string }) {
  const lookUp = useWorkbench((s) => s.lookUpPoints);
  const view = useAsked(lookUp, id);
  const edits = useWorkbench((s) => s.stage.edits);
  if (!view) return null;
  const several = view.motors.length > 1;
  return (
    <>
      {view.motors.map(({ id: motor, locks }) => (
        <div key={motor} className="mt-3 flex flex-col gap-2">
          {locks && <Answer rule={names.locked({ id: motor })} />}
          <Answer rule={names.output('indicator', { id: motor })} />
        </div>
      ))}
      {view.motors.map(({ id: motor, name, while: held, otherwise }) => (
        <PanelSection key={motor} title={`${several ? name : 'It'} refuses to move while`}>
          {otherwise !== undefined ? (
            <p className="text-ink2">It follows a rule of its own, not what is asked: {otherwise}.</p>
          ) : held.length === 0 ? (
            <p className="text-ink2">Nothing: it moves whenever it is asked, even under a train.</p>
          ) : (
            <ul className="list-disc pl-4 text-ink2">
              {held.map((says) => (
                <li key={says}>{says}</li>
              ))}
            </ul>
          )}
        </PanelSection>
      ))}
      {edits && <PatternOptions id={id} options={view.options} />}
      {view.motors.map(({ id: motor, name }) => (
        <ItsRules key={motor} id={motor} name={name} />
      ))}
    </>
  );
}
