'use client';
import type { PointsView } from '@/core/design';
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
      {view.motors.map(({ id: motor, name, while: held, rules, otherwise, byHand }) => (
        <PanelSection
          key={motor}
          title={
            byHand
              ? `Nobody may throw ${several ? name : 'it'} while`
              : `${several ? name : 'It'} refuses to move while`
          }
        >
          {otherwise !== undefined ? (
            <p className="text-ink2">It follows a rule of its own, not what is asked: {otherwise}.</p>
          ) : held.length === 0 ? (
            <p className="text-ink2">
              Nothing:{' '}
              {byHand ? 'nothing tells of a train near it' : 'it moves whenever it is asked, even under a train'}.
            </p>
          ) : (
            <ul className="list-disc pl-4 text-ink2">
              {held.map((says) => (
                <HoldsIt key={says} says={says} rule={rules[says]} />
              ))}
            </ul>
          )}
        </PanelSection>
      ))}
      <ThrownBy motors={view.motors} />
      <Contacts id={id} motors={view.motors} />
      {edits && <PatternOptions id={id} options={view.options} />}
      {view.motors.map(({ id: motor, name }) => (
        <ItsRules key={motor} id={motor} name={name} />
      ))}
    </>
  );
}

/** What throws points without anybody asking for it. */
function ThrownBy({ motors }: { motors: PointsView['motors'] }) {
  const all = motors.flatMap(({ name, thrown }) =>
    (['straight', 'diverging'] as const).flatMap((to) => thrown[to].map((says) => ({ name, to, says }))),
  );
  if (all.length === 0) return null;
  return (
    <PanelSection title={motors.length > 1 ? 'What throws them by itself' : 'What throws it by itself'}>
      <ul className="list-disc pl-4 text-ink2">
        {all.map(({ name, to, says }) => (
          <li key={`${name} ${to} ${says}`}>
            To {to}
            {motors.length > 1 && ` (${name})`} while: {says}
          </li>
        ))}
      </ul>
    </PanelSection>
  );
}

/** What the contacts of a motor work, and whether it has as many. */
function Contacts({ id, motors }: { id: string; motors: PointsView['motors'] }) {
  const spare = useWorkbench((s) => s.document.turnouts.find((one) => one.id === id)?.spareContacts);
  const loads = motors.flatMap((motor) => motor.loads);
  if (loads.length === 0) return null;
  const most = Math.max(...motors.map((motor) => motor.loads.length));
  return (
    <PanelSection title="Contacts">
      <p className="text-ink2">
        A frog that needs current takes the first changeover contact. Beside that{' '}
        {motors.length > 1 ? 'each of its motors' : 'it'} needs:
      </p>
      <ul className="list-disc pl-4 text-ink2">
        {loads.map((says) => (
          <li key={says}>one that {says}</li>
        ))}
      </ul>
      {spare !== undefined && spare < most && (
        <p className="mt-1 text-warn">
          {spare === 0 ? 'None is spare' : `${spare} ${spare === 1 ? 'is' : 'are'} spare`}: {most - spare} more{' '}
          {most - spare === 1 ? 'is' : 'are'} needed, by a switch beside the points or a relay.
        </p>
      )}
    </PanelSection>
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
