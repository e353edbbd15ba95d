'use client';
import { CROSSINGS } from '@/core/kinds';
import { showLength } from '@/core/measure';
import type { Crossing, Place } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { RadioList } from '@/ui/parts/one-of';
import type { Option } from '@/ui/parts/option';
import { useWorkbench } from '@/ui/state/store';
import { PanelSection, PanelTitle } from './panel';
import { PatternChoices } from './pattern-choices';
import { PointsHeld } from './points-held';
import { Certainty, DeleteButton, Rename, useEdit } from './selection-parts';

/** From where to where the curves of a slip lead, by how its lines are counted. A double one has the same curve from either line. */
const leads = (a: string, b: string): Option<'none' | 'a' | 'b' | 'both'>[] => [
  { value: 'none', says: `from the lower side of ${a} to the higher of ${b}` },
  { value: 'a', says: `from the higher side of ${a} to the higher of ${b}` },
  { value: 'b', says: `from the lower side of ${a} to the lower of ${b}` },
  { value: 'both', says: `from the higher side of ${a} to the lower of ${b}` },
];

/** Two lines that cross, and what moves there, if anything does. */
export function CrossingSelection({ crossing }: { crossing: Crossing }) {
  const document = useWorkbench((s) => s.document);
  const stage = useWorkbench((s) => s.stage);
  const { id, name, kind, a, b, clearance } = crossing;
  const graph = compileTrack(document);
  const motors = graph.motors.filter(({ points }) => graph.points[points]!.id === id);
  const edit = useEdit();
  const nameOf = ({ line }: Place) => document.lines.find(({ id: of }) => of === line)!.name;
  const place = ({ line, at }: Place) => `${nameOf({ line, at })} at ${showLength(at.tenthUm, document.shownUnit)}`;
  return (
    <>
      <PanelTitle>
        {CROSSINGS[kind].title} {name}
      </PanelTitle>
      <p className="text-ink2">
        {place(a)} crosses {place(b)}; clear after {showLength(clearance.tenthUm, document.shownUnit)}.
      </p>
      <PointsHeld id={id} />
      {stage.edits && (
        <PanelSection title="Change it">
          {motors.length > 0 && (
            <>
              <PatternChoices at="points" thing={crossing} />
              <div>
                <p className="mb-1 text-ink2">Its curves lead</p>
                <RadioList
                  label="Its curves lead"
                  value={crossing.turned ?? 'none'}
                  options={leads(nameOf(a), nameOf(b))}
                  onChange={(to) =>
                    edit({ do: 'change crossing', id, change: { turned: to === 'none' ? undefined : to } })
                  }
                />
              </div>
            </>
          )}
          <Rename key={name} name={name} renaming={(to) => ({ do: 'rename', id, name: to })} />
          <Certainty id={id} certainty={crossing.certainty} />
          <DeleteButton id={id} what={name} />
        </PanelSection>
      )}
    </>
  );
}
