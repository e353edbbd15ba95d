'use client';
import { reasonBlock } from '@/core/design';
import type { BlockId } from '@/core/detection';
import { SENSOR_KIND_IDS, sensorKind } from '@/core/kinds';
import { showLength } from '@/core/measure';
import { asTyped, signalsOf } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Term } from '@/ui/parts/term';
import { shownDocument } from '@/ui/state/design';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { ItsRules } from './its-rules';
import { PanelSection, PanelTitle } from './panel';
import { ReasonTree } from './reason-tree';
import { Rename, useEdit } from './selection-parts';

/** The id of a block that has no name yet: it stays the same when the block gets one. */
const asOf = (id: BlockId): string => id.slice('block '.length);

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function BlockSelection({ id }: { id: BlockId }) {
  const document = useWorkbench(shownDocument);
  const design = useWorkbench((s) => s.design);
  const stage = useWorkbench((s) => s.stage);
  const trial = useWorkbench((s) => s.trial);
  const store = useWorkbenchStore();
  const edit = useEdit();
  const block = design?.blocks.find((b) => b.id === id);
  if (!block) return <p className="text-ink2">That block is no longer there: its boundaries have changed.</p>;
  const anchor = { line: block.middle.line, at: asTyped(block.middle.at, document.shownUnit) };
  const { name } = block;
  const untold = block.detectors.length === 0 && !block.inferred;
  const axleHere = trial.occupied.includes(id);
  return (
    <>
      <PanelTitle>
        <Term word="block">Block</Term> {name}, {showLength(block.length, document.shownUnit)}
      </PanelTitle>
      {stage.tries && (
        <div className="mb-2 rounded-md bg-accent-tint px-2 py-1">
          <CheckBox
            checked={axleHere}
            disabled={untold}
            onChange={() =>
              store.getState().set({
                trial: {
                  ...trial,
                  occupied: axleHere ? trial.occupied.filter((b) => b !== id) : [...trial.occupied, id],
                },
              })
            }
          >
            Set a <Term word="resistor">resistor axle</Term> down here
          </CheckBox>
          {untold && <p className="text-ink2">No detector would see it: add one first.</p>}
        </div>
      )}
      <ReasonTree bare reason={reasonBlock(document, block)} />
      {untold && (
        <button
          type="button"
          className="button mt-3"
          onClick={() =>
            edit({
              do: 'add sensor',
              line: block.middle.line,
              at: asTyped(block.middle.at, document.shownUnit),
            })
          }
        >
          Add a {sensorKind(SENSOR_KIND_IDS[0]!).title.toLowerCase()}
        </button>
      )}
      {block.ends.length > 0 && stage.edits && (
        <PanelSection title="Signals at its ends">
          <ul className="flex flex-col gap-1">
            {block.ends.map((end, i) => {
              const place = showLength(end.at, document.shownUnit);
              const standing = signalsOf(document).find(
                (s) => s.line === end.line && s.at.tenthUm === end.at && s.governs === end.governs,
              );
              return (
                <li key={i}>
                  {standing ? (
                    <button type="button" className="button" onClick={() => store.getState().select(standing.id)}>
                      {standing.name} at {place}
                    </button>
                  ) : (
                    <button
                      type="button"
                      className="button"
                      onClick={() =>
                        edit({
                          do: 'add signal',
                          line: end.line,
                          at: asTyped(end.at, document.shownUnit),
                          governs: end.governs,
                        })
                      }
                    >
                      Place a signal at {place}
                    </button>
                  )}
                </li>
              );
            })}
          </ul>
        </PanelSection>
      )}
      <ItsRules id={id} name={name} />
      {stage.names && (
        <>
          <Rename
            key={name}
            name={name}
            renaming={(to) => ({ do: 'name block', id: block.named, as: asOf(id), anchor, name: to })}
            onDone={(to) => {
              const named = store.getState().document.blocks.find((b) => b.name === to);
              if (named) store.getState().select(`block ${named.id}`);
            }}
          />
          {document.sensors
            .filter((sensor) => [...block.detectors, ...block.spots].includes(sensor.id))
            .map(({ id: sensor, name: called, kind }) => (
              <p key={sensor} className="mt-3">
                <button type="button" className="button" onClick={() => store.getState().select(sensor)}>
                  {sensorKind(kind).title} {called}
                </button>
              </p>
            ))}
        </>
      )}
    </>
  );
}
