'use client';
import { SENSOR_KIND_IDS, sensorKind } from '@/core/kinds';
import { showLength } from '@/core/measure';
import { names } from '@/core/patterns';
import { MOST_TURNS, type Sensor, saySensorInput } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { Term } from '@/ui/parts/term';
import { useWorkbench } from '@/ui/state/store';
import { Answer } from './answer';
import { NumberField } from './number-field';
import { DETECTORS_BROKEN, sidesOf } from './options';
import { PanelTitle } from './panel';
import { PatternChoices } from './pattern-choices';
import { Certainty, DeleteButton, Rename, useEdit } from './selection-parts';
import { SpotFacts } from './spot-facts';

export const sensorOptions = SENSOR_KIND_IDS.map((id) => ({ value: id, says: sensorKind(id).title }));
const MOST_HOLD_S = 60;

/** A sensor: what it notices, where, and for how long it counts. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function SensorSelection({ sensor }: { sensor: Sensor }) {
  const document = useWorkbench((s) => s.document);
  const stage = useWorkbench((s) => s.stage);
  const edit = useEdit();
  const { id, name, kind, anchor, holdMs } = sensor;
  const { title, means, getsWrong, reachMm, inFeeder, tells, beside } = sensorKind(kind);
  const line = document.lines.find((l) => l.id === anchor.line)?.name;
  return (
    <>
      <PanelTitle>
        {title} {name}
      </PanelTitle>
      <p className="text-ink2">
        {showLength(anchor.at.tenthUm, document.shownUnit)} on {line}
        {reachMm === 'section' ? '; it watches all between the gaps around it' : ''}
      </p>
      <p className="mt-1">{means}</p>
      <p className="mt-1 text-ink3">{getsWrong}</p>
      <div className="mt-3">
        <Answer rule={names.output('lamp', sensor)} />
      </div>
      <SpotFacts sensor={sensor} />
      {stage.names && (
        <div className="mt-3 flex flex-col gap-2">
          <Choice
            label="Kind"
            value={kind}
            options={sensorOptions}
            onChange={(next) => edit({ do: 'change sensor', id, change: { kind: next } })}
          />
          <LengthField
            label={`Distance from the start of ${line}`}
            unit={document.shownUnit}
            scale={document.scale}
            value={anchor.at}
            onCommit={(at) => edit({ do: 'move', id, at })}
          />
          {(!tells || tells === 'for a time') && (
            <NumberField
              key={`${id} ${holdMs}`}
              label={
                tells ? (
                  'Occupied for so long after a train, in seconds'
                ) : (
                  <>
                    <Term word="hold">Hold time</Term>, in seconds
                  </>
                )
              }
              value={holdMs / 1000}
              least={0}
              most={MOST_HOLD_S}
              onCommit={(seconds) => edit({ do: 'change sensor', id, change: { holdMs: Math.round(seconds * 1000) } })}
            />
          )}
          {inFeeder && (
            <NumberField
              key={`notices ${id} ${sensor.noticesMa}`}
              label="Notices from so many mA on, through one turn"
              value={sensor.noticesMa ?? inFeeder.noticesMa}
              least={0.01}
              most={1000}
              unit="milliamperes"
              digits={2}
              onCommit={(noticesMa) => edit({ do: 'change sensor', id, change: { noticesMa } })}
            />
          )}
          {inFeeder?.turns !== undefined && (
            <NumberField
              key={`turns ${id} ${sensor.turns}`}
              label="Turns of the feeder through it"
              value={sensor.turns ?? inFeeder.turns}
              least={1}
              most={MOST_TURNS}
              unit="turns"
              digits={0}
              onCommit={(turns) => edit({ do: 'change sensor', id, change: { turns: Math.round(turns) } })}
            />
          )}
          {tells !== 'for a time' && (
            <Rename
              key={`${id} ${saySensorInput(sensor.input)}`}
              label="Input of a module, such as 2.5"
              name={saySensorInput(sensor.input)}
              says="Wire it so"
              renaming={(input) => ({ do: 'change sensor', id, change: { input } })}
            />
          )}
          {!tells && (
            <Choice
              label="With a broken wire, or no supply, it"
              value={sensor.broken}
              placeholder="not said yet"
              options={DETECTORS_BROKEN}
              onChange={(sensors) => edit({ do: 'wire', ids: [id], wiring: { sensors } })}
            />
          )}
          {beside && (
            <Choice
              label="It stands"
              value={sensor.side}
              placeholder="not said yet"
              options={sidesOf(document.directions)}
              onChange={(side) => edit({ do: 'change sensor', id, change: { side } })}
            />
          )}
          <PatternChoices at="sensor" thing={sensor} />
          <Rename key={id} name={name} renaming={(to) => ({ do: 'rename', id, name: to })} />
          <Certainty id={id} certainty={sensor.certainty} />
          <DeleteButton id={id} what={name} />
        </div>
      )}
    </>
  );
}
