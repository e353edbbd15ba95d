'use client';
import { type Lie, MOTOR_KIND_IDS, MOTORS, TURNOUTS } from '@/core/kinds';
import { showLength } from '@/core/measure';
import type { Edit, Turnout } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { Choice, type Option } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { Term } from '@/ui/parts/term';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { NumberField } from './number-field';
import { PanelSection, PanelTitle } from './panel';
import { PatternChoices } from './pattern-choices';
import { PointsHeld } from './points-held';
import { Certainty, DeleteButton, Rename, useEdit } from './selection-parts';
import { ThrowRules } from './throw-rules';

const LIES: Option<Lie>[] = [
  { value: 'straight', says: 'straight' },
  { value: 'diverging', says: 'diverging' },
];

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function TurnoutSelection({ turnout }: { turnout: Turnout }) {
  const document = useWorkbench((s) => s.document);
  const stage = useWorkbench((s) => s.stage);
  const trial = useWorkbench((s) => s.trial);
  const store = useWorkbenchStore();
  const edit = useEdit();
  const change = (what: Extract<Edit, { do: 'change turnout' }>['change']) =>
    edit({ do: 'change turnout', id: turnout.id, change: what });
  const graph = compileTrack(document);
  const own = graph.motors.filter(({ points }) => graph.points[points]!.id === turnout.id);
  const legs = turnout.legs.map((leg) => document.lines.find(({ id }) => id === leg.line)?.name);
  return (
    <>
      <PanelTitle>
        <Term word="turnout">{TURNOUTS[turnout.kind].title}</Term> {turnout.name}
      </PanelTitle>
      <p className="text-ink2">
        Blade tips at {showLength(turnout.at.tenthUm, document.shownUnit)};{' '}
        {legs.length === 1 ? `the ${turnout.hand}-hand leg leads` : 'its legs lead'} to {legs.join(' and ')}.{' '}
        <Term word="clearance">Clear</Term> after {showLength(turnout.clearance.tenthUm, document.shownUnit)}.
      </p>
      {stage.tries &&
        own.map(({ id, name, lies: atFirst }) => {
          const lies = trial.points[id] ?? atFirst;
          const other = lies === 'straight' ? 'diverging' : 'straight';
          return (
            <button
              key={id}
              type="button"
              className="button mt-2"
              onClick={() => store.getState().set({ trial: { ...trial, points: { ...trial.points, [id]: other } } })}
            >
              {own.length > 1 ? name : 'It'} lies {lies}: throw it to {other}
            </button>
          );
        })}
      <PointsHeld id={turnout.id} />
      {stage.edits && (
        <PanelSection title="Change it">
          <div className="grid gap-2">
            <LengthField
              label="Blade tips at"
              unit={document.shownUnit}
              scale={document.scale}
              value={turnout.at}
              onCommit={(at) => edit({ do: 'move', id: turnout.id, at })}
            />
            <LengthField
              label="From blade tips to the clearance point"
              unit={document.shownUnit}
              scale={document.scale}
              value={turnout.clearance}
              onCommit={(clearance) => change({ clearance })}
            />
            {own.map(({ id, name, lies }, nth) => (
              <Choice
                key={id}
                label={own.length === 1 ? 'Lies, when a rehearsal begins' : `${name} lies, when a rehearsal begins`}
                value={lies}
                options={LIES}
                onChange={(at) => change({ lies: turnout.lies.map((was, other) => (other === nth ? at : was)) })}
              />
            ))}
            <Choice
              label="Thrown"
              value={turnout.motor}
              options={MOTOR_KIND_IDS.map((id) => ({ value: id, says: MOTORS[id].says }))}
              onChange={(motor) => change({ motor, throwMs: undefined })}
            />
            <NumberField
              key={`${turnout.motor} ${turnout.throwMs}`}
              label={turnout.throwMs === undefined ? 'Takes, in seconds, as is usual' : 'Takes, in seconds'}
              value={(turnout.throwMs ?? MOTORS[turnout.motor].throwMs) / 1000}
              least={0}
              most={60}
              onCommit={(seconds) => change({ throwMs: Math.round(seconds * 1000) })}
            />
            <NumberField
              key={turnout.spareContacts}
              label="Spare contacts of a motor, beside that for the frog"
              value={turnout.spareContacts}
              least={0}
              most={8}
              unit="contacts"
              digits={0}
              onCommit={(count) => change({ spareContacts: Math.round(count) })}
            />
          </div>
          <PatternChoices at="points" thing={turnout} />
          <ThrowRules id={turnout.id} />
          <Rename
            key={turnout.name}
            name={turnout.name}
            renaming={(name) => ({ do: 'rename', id: turnout.id, name })}
          />
          <Certainty id={turnout.id} certainty={turnout.certainty} />
          <DeleteButton id={turnout.id} what={`${turnout.name} and its track`} />
        </PanelSection>
      )}
    </>
  );
}
