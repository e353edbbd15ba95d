'use client';
import { names } from '@/core/patterns';
import { useWorkbench } from '@/ui/state/store';
import { Answer } from './answer';
import { ItsRules } from './its-rules';
import { PanelSection } from './panel';
import { PatternOptions } from './pattern-options';
import { useAnswer } from './use-answer';
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
      {view.motors.map(({ id: motor, name, while: held, rules, otherwise }) => (
        <PanelSection key={motor} title={`${several ? name : 'It'} refuses to move while`}>
          {otherwise !== undefined ? (
            <p className="text-ink2">It follows a rule of its own, not what is asked: {otherwise}.</p>
          ) : held.length === 0 ? (
            <p className="text-ink2">Nothing: it moves whenever it is asked, even under a train.</p>
          ) : (
            <ul className="list-disc pl-4 text-ink2">
              {held.map((says) => (
                <HoldsIt key={says} says={says} rule={rules[says]} />
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

/** One thing that holds points, and whether it does so now. */
function HoldsIt({ says, rule = '' }: { says: string; rule?: string }) {
  const now = useAnswer(rule)?.says === says;
  return (
    <li className={now ? 'font-semibold text-ink' : ''}>
      {says}
      {now && <span className="ml-1.5 rounded-sm bg-accent-tint px-1 text-[0.75rem] text-accent">now</span>}
    </li>
  );
}
