import { cm } from '@/core/measure';
import { type Feature, giveOwnVehicles, type LayoutDocument, type Turnout } from '@/core/survey';
import { block, gap, sensor, signal, turnout } from './build';
import { smallValley } from './small-valley';

/**
 * The valley as it stands now. The second track of Marrowick goes on beside the main line to Fenhallow, with a scissors crossover between
 * the two; behind Skerrin the branch comes round in a loop; at Undercroft a double slip leads to the engine shed and its coal road.
 */
export function ondrelValley(): LayoutDocument {
  const d = smallValley();
  doubleTrack(d);
  skerrinLoop(d);
  undercroftShed(d);
  quarryWagons(d);
  pellDockQuay(d);
  marrowickArrivals(d);
  workedByTrains(d);
  branchBySpots(d);
  decisions(d);
  mainLineSignals(d);
  giveOwnVehicles(d);
  return d;
}

const without = (d: LayoutDocument, ...gone: string[]) => {
  d.features = d.features.filter(({ id }) => !gone.includes(id));
};
const lengthen = (d: LayoutDocument, line: string, length: number) => {
  d.lines = d.lines.map((one) => (one.id === line ? { ...one, length: cm(length) } : one));
};
const bothRails = (id: string, line: string, at: number): Feature =>
  ({ ...(gap(id, line, at) as object), rail: 'both' }) as Feature;

/** Every other wagon has its resistor axle: no stretch of the train that is not seen is long enough to stand over the points of the scissors. */
function quarryWagons(d: LayoutDocument): void {
  const wagons = Array.from({ length: 10 }, (_, i) => (i % 2 === 0 ? 'v-wagon' : 'v-wagon-r'));
  d.trains = d.trains.map((one) =>
    one.id === 'tr-quarry' ? { ...one, vehicles: ['v-tank', ...wagons, 'v-van'] } : one,
  );
}

/** Eastbound on the main line, westbound on the track beside it. */
function doubleTrack(d: LayoutDocument): void {
  lengthen(d, 'm2', 444);
  d.lines.push(
    ...(['xa', 'xb'] as const).map((id) => ({
      id,
      name: id === 'xa' ? 'Scissors down' : 'Scissors up',
      length: cm(40),
      drawing: undefined,
    })),
  );
  const together = (one: Turnout, throwsWith: string | undefined): Turnout => ({
    ...one,
    clearance: cm(16),
    throwsWith,
  });
  d.turnouts = [
    ...d.turnouts.map((one) => (one.name === 'T6' ? { ...one, at: cm(918) } : one)),
    together(turnout('T11', 'main', 706, 'up', 'right', 'xa'), undefined),
    together(turnout('T12', 'm2', 260, 'down', 'left', 'xa'), 't-T11'),
    together(turnout('T13', 'm2', 232, 'up', 'left', 'xb'), 't-T11'),
    together(turnout('T14', 'main', 742, 'down', 'right', 'xb'), 't-T11'),
  ];
  d.crossings.push({
    id: 'c-X1',
    name: 'X1',
    kind: 'diamond',
    a: { line: 'xa', at: cm(20) },
    b: { line: 'xb', at: cm(20) },
    angleDegrees: 19,
    clearance: cm(10),
    certainty: 'fixed',
  });
  without(d, 'g15', 's-FE', 's-MW');
  d.features.push(
    gap('g23', 'main', 895),
    gap('g24', 'm2', 266),
    gap('g25', 'm2', 412),
    signal('FE', 'main', 895, 'up'),
    signal('F2E', 'm2', 412, 'up'),
    signal('MW', 'm2', 266, 'down'),
    signal('M3W', 'main', 748, 'down'),
  );
  block(d, 'MR', 'm2', 340);
}

/** The branch goes on past the platform, comes round, and meets itself the other way: both rails are cut where it does. */
function skerrinLoop(d: LayoutDocument): void {
  lengthen(d, 'sk', 470);
  d.lines.push({ id: 'sl', name: 'Skerrin loop', length: cm(124), drawing: undefined });
  d.joins.push({ id: 'j2', a: { line: 'sk', end: 'end' }, b: { line: 'sl', end: 'end' } });
  without(d, 'x2');
  d.turnouts.push(turnout('T15', 'sk', 346, 'up', 'right', 'sl'));
  d.features.push(
    gap('g26', 'sk', 332),
    bothRails('g27', 'sk', 376),
    bothRails('g28', 'sl', 30),
    signal('SK1E', 'sk', 332, 'up'),
    signal('SL1', 'sk', 376, 'down'),
    signal('SL2', 'sl', 30, 'down'),
  );
  block(d, 'SKT', 'sk', 356);
  block(d, 'SKL', 'sk', 420);
}

const setByPeople = (one: Feature): Feature => ({ ...(one as object), patterns: ['set routes'] }) as Feature;

/** A track across the lead of Undercroft 3, with a slip that reaches it from either side: somebody sets each route over the slip from the shed and the coal road. */
function undercroftShed(d: LayoutDocument): void {
  d.lines.push({ id: 'us', name: 'Undercroft shed', length: cm(150), drawing: undefined });
  d.crossings.push({
    id: 'c-X2',
    name: 'X2',
    kind: 'double slip',
    a: { line: 'uc3', at: cm(226) },
    b: { line: 'us', at: cm(70) },
    angleDegrees: 12,
    clearance: cm(10),
    certainty: 'fixed',
  });
  d.features.push(
    gap('g29', 'us', 54),
    gap('g30', 'us', 86),
    setByPeople(signal('US1E', 'us', 54, 'up')),
    setByPeople(signal('US2W', 'us', 86, 'down')),
    { id: 'x5', kind: 'buffer', line: 'us', at: cm(0), certainty: 'fixed' },
    { id: 'x6', kind: 'buffer', line: 'us', at: cm(150), certainty: 'fixed' },
  );
  block(d, 'US1', 'us', 30);
  block(d, 'US2', 'us', 120);
}

/** Signals tell by the speed that they allow which way is set; those at the far end of the branch have one head. */
function mainLineSignals(d: LayoutDocument): void {
  const alone = /^(SK1E|SL|US2|SE$|PDQ)/;
  d.features = d.features.map((one) =>
    one.kind === 'signal' && !alone.test(one.name) ? { ...one, system: 'speed-signals' } : one,
  );
}

/** Far out on the branch nobody ran a wire to a section: two spots at each end tell of it. */
function branchBySpots(d: LayoutDocument): void {
  d.sensors = d.sensors.filter(({ id }) => id !== 'd-SB');
  d.sensors.push(...[40, 52, 164, 176].map((at, i) => sensor(`SB${i + 1}`, 'optical', 'sk', at)));
}

/** At Pell Dock an operator clears trains to the quay, one at a time; with nobody there they come on sight. */
function pellDockQuay(d: LayoutDocument): void {
  const quay = signal('PDQ', 'pd', 120, 'up');
  d.features.push(gap('g80', 'pd', 120), { ...quay, system: 'authority-signal', patterns: ['authority'] } as Feature);
  block(d, 'PQ', 'pd', 160);
  d.areas.push({
    id: 'a-quay',
    name: 'Pell Dock quay',
    line: 'pd',
    from: cm(120),
    to: cm(190),
    purpose: 'Wagons are loaded, one train at a time.',
    admits: 'operator',
    whenEmpty: 'caution',
    speedKmh: undefined,
    comesIn: 'goods, when somebody has looked',
    leavesOut: 'No signal outwards: the shunter calls the train out.',
  });
}

/** The turnout to Pell Dock stays locked until a train has arrived beyond it: a spot tells of that at the end of each block to which it leads. */
function marrowickArrivals(d: LayoutDocument): void {
  d.turnouts = d.turnouts.map((one) => (one.name === 'T8' ? { ...one, patterns: ['arrival locking'] } : one));
  d.sensors.push(
    sensor('MA1', 'optical', 'main', 678),
    sensor('MA2', 'optical', 'pd', 100),
    sensor('MA3', 'optical', 'main', 324),
  );
}

/**
 * By night nobody is at Undercroft: a train that comes takes the first of its tracks that is free. At the end of the branch the railcar throws the
 * turnout of the loop for itself, on its way in and on its way out.
 */
function workedByTrains(d: LayoutDocument): void {
  const worked = new Set(['UE', 'UW', 'UC1E', 'UC2E', 'UC3E', 'UC1W', 'UC2W', 'UC3W', 'SK1E', 'SL1', 'SL2']);
  d.features = d.features.map((one) =>
    one.kind === 'signal' && worked.has(one.name) ? { ...one, patterns: ['trains set routes'] } : one,
  );
}

/** What is protected and what is not, and what runs in an hour of an evening with two people. */
function decisions(d: LayoutDocument): void {
  const decided: Record<string, Partial<LayoutDocument['areas'][number]>> = {
    Undercroft: { admits: 'interlocked', comesIn: 'any train, on a free track' },
    Marrowick: {
      admits: 'operator',
      whenEmpty: 'caution',
      leavesOut: 'Pell Dock has no signal of its own inwards: shunting goes on sight.',
    },
    Fenhallow: { admits: 'automatic' },
  };
  d.areas = d.areas.map((area) => ({ ...area, ...decided[area.name] }));
  d.people = 2;
  const move = (
    train: string,
    from: string,
    to: string,
    facing: 'up' | 'down',
    perHour: number,
    turnsBack: 'no' | 'engine' | 'train' = 'no',
  ) => d.movements.push({ id: `mv${d.movements.length + 1}`, train, from, to, facing, perHour, turnsBack, notes: '' });
  move('tr-mail', 'Undercroft', 'Undercroft', 'up', 2);
  move('tr-railcar', 'Fenhallow', 'Skerrin', 'up', 4, 'train');
  move('tr-quarry', 'Undercroft', 'Marrowick', 'down', 1, 'engine');
}
