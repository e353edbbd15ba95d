import type { Finding } from '../findings';
import { sensorKind, TRACK_POWERS } from '../kinds';
import { fromMm, showNumber, TENTH_UM_PER_METRE } from '../measure';
import { type Edit, type LayoutDocument, MOST_TURNS, type Sensor, USUAL_ELECTRICS } from '../survey';
import type { Partition } from './partition';

/** What a detector in a feeder makes of the currents of its section, in mA. Ohm's law. */
export interface Sensitivity {
  /** Through one resistor axle. */
  axleMa: number;
  /** Through its whole section, with nothing on it. */
  leakMa: number;
  /** From how much on it says occupied. */
  fromMa: number;
  /** How often its feeder is wound through it; 1 where it is not wound. */
  turns: number;
  seesAxle: boolean;
  /** It says occupied by leakage alone. */
  falselyOccupied: boolean;
  /** The fewest turns with which it sees one axle and is not occupied by leakage; none where no number does both. */
  rightTurns?: number;
}

/** Undefined for a sensor that does not lie in a feeder. */
export function sensitivityOf(
  document: LayoutDocument,
  { fields }: Partition,
  sensor: Sensor,
): Sensitivity | undefined {
  const { kind, noticesMa, turns } = sensor;
  const { inFeeder } = sensorKind(kind);
  if (!inFeeder) return undefined;
  const { volts, axleOhms, leakOhms } = document.electrics ?? USUAL_ELECTRICS;
  const field = fields.all[fields.ofSensor[document.sensors.indexOf(sensor)]!]!;
  const length = fromMm(field.on.reduce((sum, { from, to }) => sum + to - from, 0));
  const left = Math.max(0, volts - inFeeder.dropV);
  const axleMa = (left / axleOhms) * 1000;
  const leakMa = ((left * length) / TENTH_UM_PER_METRE / leakOhms) * 1000;
  const notices = noticesMa ?? inFeeder.noticesMa;
  const wound = inFeeder.turns === undefined ? 1 : (turns ?? inFeeder.turns);
  const fewest = Math.max(1, Math.ceil(notices / axleMa - 1e-9));
  const right = fewest <= (inFeeder.turns === undefined ? 1 : MOST_TURNS) && leakMa * fewest < notices;
  return {
    axleMa,
    leakMa,
    fromMa: notices / wound,
    turns: wound,
    seesAxle: axleMa * wound >= notices - 1e-9,
    falselyOccupied: leakMa * wound >= notices,
    ...(right && { rightTurns: fewest }),
  };
}

/** Detectors in feeders that miss a resistor axle, or take leakage for a train; on plain DC they see nothing of a train that stands. */
export function sensitivityFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const ma = (value: number) => `${showNumber(value, 2)} mA`;
  const relied = document.vehicles.some(({ axles }) => axles.some(({ feeds }) => feeds === 'resistor'));
  const inFeeders = document.sensors.filter(({ kind }) => sensorKind(kind).inFeeder);
  const ofSections = document.sensors.filter(({ kind }) => sensorKind(kind).reachMm === 'section');
  if (ofSections.length > 0 && TRACK_POWERS[document.power].closes)
    findings.push({
      id: 'closed-throttle',
      kind: 'detector blind at a closed throttle',
      severity: 'unsafe',
      subject: ofSections[0]!.id,
      says: `On ${TRACK_POWERS[document.power].says} there is no current in the track while the throttle is closed: ${ofSections.length === 1 ? ofSections[0]!.name : `${ofSections.length} detectors`} then see nothing of a train that stands.`,
      figures: [],
      advice:
        'Choose sensors that need no current in the track, or release by arrival. Rehearse and Prove take it so: a train that stands is not noticed.',
      fixes: [],
    });
  if (!TRACK_POWERS[document.power].inTrack) return findings;
  for (const sensor of inFeeders) {
    const found = sensitivityOf(document, partition, sensor);
    if (!found) continue;
    const { axleMa, leakMa, fromMa, rightTurns } = found;
    const { title } = sensorKind(sensor.kind);
    const figures = [
      { name: 'one resistor axle', value: ma(axleMa) },
      { name: 'leakage of its section', value: ma(leakMa) },
      { name: 'noticed from', value: ma(fromMa) },
    ];
    const fixes =
      rightTurns === undefined
        ? []
        : [
            {
              says: `Wind its feeder through ${sensor.name} ${rightTurns === 1 ? 'once' : `${rightTurns} times`}`,
              edit: { do: 'change sensor' as const, id: sensor.id, change: { turns: rightTurns } },
            },
          ];
    if (!found.seesAxle && relied)
      findings.push({
        id: `too-dull ${sensor.id}`,
        kind: 'detector too dull for a resistor axle',
        severity: 'unsafe',
        subject: sensor.id,
        says: `${title} ${sensor.name} does not notice a single resistor axle: its section reads free while a vehicle that has nothing else stands there.`,
        figures,
        advice: 'Wind the feeder through it more often, fit axles of less resistance, or set it to notice less.',
        fixes,
      });
    if (found.falselyOccupied)
      findings.push({
        id: `leakage ${sensor.id}`,
        kind: 'detector that leakage occupies',
        severity: 'check',
        subject: sensor.id,
        says: `${title} ${sensor.name} would say occupied by what leaks through its ballast alone.`,
        figures,
        advice: 'Wind the feeder through it less often, dry and clean the track, or make the section shorter.',
        fixes,
      });
  }
  return findings;
}
