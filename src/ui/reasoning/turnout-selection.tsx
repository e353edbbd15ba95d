'use client';
import { TURNOUTS } from '@/core/kinds';
import { showLength } from '@/core/measure';
import type { Turnout } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { Choice, type Option } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { Term } from '@/ui/parts/term';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { PanelSection, PanelTitle } from './panel';
import { PatternChoices } from './pattern-choices';
import { PointsHeld } from './points-held';
import { Certainty, DeleteButton, Rename, useEdit } from './selection-parts';

const LIES: Option<Turnout['lies']>[] = [
  { value: 'straight', says: 'straight' },
  { value: 'diverging', says: 'diverging' },
];

export function TurnoutSelection({ turnout }: { turnout: Turnout }) {
  const document = useWorkbench((s) => s.document);
  const _design = useWorkbench((s) => s.design);
  const stage = useWorkbench((s) => s.stage);
  const trial = useWorkbench((s) => s.trial);
  const store = useWorkbenchStore();
  const edit = useEdit();
  const graph = compileTrack(document);
  const own = graph.motors.filter(({ points }) => graph.points[points]!.id === turnout.id);
  const leg = document.lines.find((l) => l.id === turnout.diverging.line);
  return (
    <>
      <PanelTitle>
        <Term word="turnout">{TURNOUTS[turnout.kind].title}</Term> {turnout.name}
      </PanelTitle>
      <p className="text-ink2">
        Blade tips at {showLength(turnout.at.tenthUm, document.shownUnit)}; the {turnout.hand}-hand leg leads to{' '}
        {leg?.name}. <Term word="clearance">Clear</Term> after{' '}
        {showLength(turnout.clearance.tenthUm, document.shownUnit)}.
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
            onCommit={(clearance) => edit({ do: 'change turnout', id: turnout.id, change: { clearance } })}
          />
          <Choice
            label="Lies, when a rehearsal begins"
            value={turnout.lies}
            options={LIES}
            onChange={(at) => edit({ do: 'change turnout', id: turnout.id, change: { lies: at } })}
          />
          <PatternChoices at="points" thing={turnout} />
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
