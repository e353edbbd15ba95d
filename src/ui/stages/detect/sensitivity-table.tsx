'use client';
import { useMemo } from 'react';
import { divideTrack, type Sensitivity, sensitivityOf } from '@/core/detection';
import { TRACK_POWERS } from '@/core/kinds';
import { showNumber } from '@/core/measure';
import { type Electrics, type LayoutDocument, type Sensor, USUAL_ELECTRICS } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { Caution } from '@/ui/parts/caution';
import { NumberField } from '@/ui/reasoning/number-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { SelectThing } from '@/ui/reasoning/select-thing';
import { useWorkbenchStore } from '@/ui/state/store';

type Row = Sensitivity & { sensor: Sensor };

/** Whether each detector in a feeder notices one resistor axle, and not the leakage of its section. */
export function SensitivityTable({ document }: { document: LayoutDocument }) {
  const store = useWorkbenchStore();
  const rows = useMemo(() => rowsOf(document), [document]);
  if (rows.length === 0 || !TRACK_POWERS[document.power].inTrack) return null;
  const electrics = document.electrics ?? USUAL_ELECTRICS;
  const wrong = rows.filter((row) => !row.seesAxle || row.falselyOccupied);
  const helped = wrong.filter(({ rightTurns }) => rightTurns !== undefined);
  const { edit } = store.getState();
  const reckon = (change: Partial<Electrics>) => edit({ do: 'reckon with', electrics: { ...electrics, ...change } });
  const most = Math.max(...rows.flatMap(({ axleMa, leakMa, fromMa }) => [axleMa, leakMa, fromMa])) * 1.1;
  return (
    <PanelSection title="Sensitivity">
      <p>
        <strong>
          {wrong.length === 0
            ? `Each of ${rows.length} detectors notices one resistor axle, and none its leakage.`
            : `${wrong.length} of ${rows.length} detectors are too dull for one resistor axle, or occupied by leakage.`}
        </strong>
      </p>
      {helped.length > 0 && (
        <>
          <button
            type="button"
            className="button button-main mt-2"
            onClick={() =>
              edit({
                do: 'wind feeders',
                turns: Object.fromEntries(helped.map(({ sensor, rightTurns }) => [sensor.id, rightTurns!])),
              })
            }
          >
            {helped.length === 1
              ? 'Wind its feeder as often as it needs'
              : `Wind ${helped.length} feeders as they need`}
          </button>
          <Caution work="wiring" />
        </>
      )}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <NumberField
          key={`volts ${electrics.volts}`}
          label="Track voltage, V"
          value={electrics.volts}
          least={1}
          most={60}
          unit="volts"
          onCommit={(volts) => reckon({ volts })}
        />
        <NumberField
          key={`axle ${electrics.axleOhms}`}
          label="Resistor axle, kΩ"
          value={electrics.axleOhms / 1000}
          least={0.1}
          most={1000}
          unit="kiloohms"
          digits={2}
          onCommit={(kilo) => reckon({ axleOhms: Math.round(kilo * 1000) })}
        />
        <NumberField
          key={`leak ${electrics.leakOhms}`}
          label="Leakage of 1 m, kΩ"
          value={electrics.leakOhms / 1000}
          least={0.1}
          most={100_000}
          unit="kiloohms"
          digits={1}
          onCommit={(kilo) => reckon({ leakOhms: Math.round(kilo * 1000) })}
        />
      </div>
      <p className="mt-1 text-ink3">
        {document.electrics
          ? 'As you have said.'
          : 'Assumed until you have measured: the resistance between the rails of a clean, empty stretch tells the leakage.'}
      </p>
      <table className="mt-2 w-full text-left">
        <thead>
          <tr className="text-ink3">
            <th className="pr-2 font-normal">Detector</th>
            <th className="font-normal">grey: leakage; bar: noticed from; dot: one axle</th>
          </tr>
        </thead>
        <tbody>
          {[...rows]
            .sort((a, b) => Number(wrong.includes(b)) - Number(wrong.includes(a)))
            .map((row) => (
              <tr key={row.sensor.id} className="border-t border-hair">
                <td className="pr-2">
                  <SelectThing id={row.sensor.id}>{row.sensor.name}</SelectThing>
                </td>
                <td>
                  <Window row={row} most={most} wrong={wrong.includes(row)} />
                </td>
              </tr>
            ))}
        </tbody>
      </table>
    </PanelSection>
  );
}

const WIDTH = 180;

/** Three currents on one scale: what leaks must lie before the bar at which it notices, and an axle beyond it. */
function Window({ row: { leakMa, fromMa, axleMa, turns }, most, wrong }: { row: Row; most: number; wrong: boolean }) {
  const x = (ma: number) => (ma / most) * WIDTH;
  const ma = (value: number) => `${showNumber(value, 2)} mA`;
  const says = `leaks ${ma(leakMa)}, notices from ${ma(fromMa)} with ${turns} ${turns === 1 ? 'turn' : 'turns'}, one axle ${ma(axleMa)}`;
  const colour = wrong ? 'var(--fail)' : 'var(--accent)';
  return (
    <svg width={WIDTH} height="18" role="img" aria-label={says}>
      <title>{says}</title>
      <path d={`M0 9H${WIDTH}`} stroke="var(--hair)" />
      <rect x="0" y="6" width={Math.max(1, x(leakMa))} height="6" fill="var(--ink3)" />
      <path d={`M${x(fromMa)} 1V17`} stroke={colour} strokeWidth="2" />
      <circle cx={x(axleMa)} cy="9" r="4" fill={colour} />
    </svg>
  );
}

function rowsOf(document: LayoutDocument): Row[] {
  const partition = divideTrack(document, compileTrack(document));
  return document.sensors.flatMap((sensor) => {
    const found = sensitivityOf(document, partition, sensor);
    return found ? [{ ...found, sensor }] : [];
  });
}
