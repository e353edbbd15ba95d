'use client';
import { showLength } from '@/core/measure';
import { FEATURES, type Feature, type FeatureChange } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Choice } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { Term } from '@/ui/parts/term';
import { useWorkbench } from '@/ui/state/store';
import { NumberField } from './number-field';
import { PanelTitle } from './panel';
import { Certainty, DeleteButton, Rename, useEdit } from './selection-parts';

/** What is known of a thing on a line, and changed about it: where it is, and what only its kind has. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function FeatureSelection({ feature }: { feature: Feature }) {
  const document = useWorkbench((s) => s.document);
  const edit = useEdit();
  const { scale, shownUnit: unit } = document;
  const line = document.lines.find(({ id }) => id === feature.line)!;
  const change = (what: FeatureChange) => edit({ do: 'change features', ids: [feature.id], change: what });
  return (
    <>
      <PanelTitle>{FEATURES[feature.kind].title}</PanelTitle>
      <p className="text-ink2">
        {'name' in feature ? `${feature.name}, ` : ''}
        {showLength(feature.at.tenthUm, unit)}
        {'to' in feature ? ` to ${showLength(feature.to.tenthUm, unit)}` : ''} on {line.name}
      </p>
      {'name' in feature && (
        <Rename name={feature.name} renaming={(name) => ({ do: 'rename', id: feature.id, name })} />
      )}
      <div className="mt-3 flex flex-col gap-2">
        <LengthField
          label={`${'to' in feature ? 'Begins' : 'Distance'}, from the start of ${line.name}`}
          unit={unit}
          scale={scale}
          value={feature.at}
          onCommit={(at) => edit({ do: 'move', id: feature.id, at })}
        />
        {'to' in feature && (
          <LengthField label="Ends at" unit={unit} scale={scale} value={feature.to} onCommit={(to) => change({ to })} />
        )}
        {feature.kind === 'curve' && (
          <LengthField
            label="Radius"
            unit={unit}
            scale={scale}
            value={feature.radius}
            onCommit={(radius) => change({ radius })}
          />
        )}
        {feature.kind === 'tapedAcross' && (
          <LengthField
            label={`As far as, from the start of ${document.lines.find(({ id }) => id === feature.far.line)!.name}`}
            unit={unit}
            scale={scale}
            value={feature.far.at}
            onCommit={(at) => change({ far: { ...feature.far, at } })}
          />
        )}
        {(feature.kind === 'taped' || feature.kind === 'tapedAcross') && (
          <LengthField
            label="As it was taped again"
            unit={unit}
            scale={scale}
            value={feature.taped}
            onCommit={(taped) => change({ taped })}
          />
        )}
        {feature.kind === 'gradient' && (
          <NumberField
            key={feature.percent}
            label={`Climbs ${document.directions.up} by, in per cent`}
            value={feature.percent}
            least={-15}
            most={15}
            unit="per cent"
            digits={2}
            onCommit={(percent) => change({ percent })}
          />
        )}
        {feature.kind === 'feeder' && (
          <>
            {document.boosters.length > 0 && (
              <Choice
                label={
                  <>
                    Led from <Term word="booster">booster</Term>
                  </>
                }
                value={feature.booster ?? ''}
                options={[
                  { value: '', says: 'not said' },
                  ...document.boosters.map(({ id, name }) => ({ value: id, says: name })),
                ]}
                onChange={(booster) => change({ booster: booster || undefined })}
              />
            )}
            <Rename
              key={document.boosters.length}
              label={document.boosters.length > 0 ? 'From another booster' : 'From which booster, if there are several'}
              name=""
              says="Lead it from there"
              renaming={(from) => ({ do: 'lead feeders', ids: [feature.id], from })}
            />
            <CheckBox
              checked={feature.reverses ?? false}
              onChange={(on) => change({ reverses: on ? true : undefined })}
            >
              Something turns its two poles round when a train needs it
            </CheckBox>
          </>
        )}
        {feature.kind === 'liftOut' && (
          <CheckBox checked={feature.guarded ?? false} onChange={(on) => change({ guarded: on ? true : undefined })}>
            A contact of it cuts the power on either side while it is out
          </CheckBox>
        )}
      </div>
      <Certainty id={feature.id} certainty={feature.certainty} />
      <DeleteButton id={feature.id} what="it" />
    </>
  );
}
