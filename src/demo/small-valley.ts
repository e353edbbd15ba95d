import { cm } from '@/core/measure';
import { type LayoutDocument, newDocument } from '@/core/survey';
import { block, gap, lit, signal, train, turnout, vehicle } from './build';

/**
 * The valley as it was first built, single track throughout: a line in a room of 5 by 3 m. Undercroft is a hidden yard, Marrowick a
 * crossing loop with the freight spur Pell Dock, Fenhallow the junction for the branch to Skerrin; the main line goes on
 * from Fenhallow round to Undercroft. Our own, invented throughout.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: a layout, thing by thing.
export function smallValley(): LayoutDocument {
  const d = newDocument('Ondrel Valley', 'H0', 'cm');
  d.notes = 'The layout that comes with Roblik. Every name and figure in it is invented.';
  d.turnoutsIn = 'routes';
  d.referenceLine = 'main';
  d.lines = [
    { id: 'main', name: 'Main', length: cm(1180) },
    { id: 'uc1', name: 'Undercroft 1', length: cm(276) },
    { id: 'uc3', name: 'Undercroft 3', length: cm(238) },
    { id: 'm2', name: 'Marrowick 2', length: cm(262) },
    { id: 'pd', name: 'Pell Dock', length: cm(190) },
    { id: 'sk', name: 'Skerrin branch', length: cm(320) },
    { id: 'sk2', name: 'Skerrin 2', length: cm(150) },
    { id: 'sk3', name: 'Skerrin goods', length: cm(100) },
  ].map((line) => ({ ...line, drawing: undefined }));
  d.joins = [{ id: 'j1', a: { line: 'main', end: 'end' }, b: { line: 'main', end: 'start' } }];
  d.turnouts = [
    turnout('T1', 'main', 12, 'up', 'left', 'uc1'),
    turnout('T2', 'main', 30, 'up', 'right', 'uc3'),
    turnout('T3', 'main', 262, 'down', 'left', 'uc3'),
    turnout('T4', 'main', 280, 'down', 'right', 'uc1'),
    turnout('T5', 'main', 480, 'up', 'right', 'm2'),
    turnout('T6', 'main', 736, 'down', 'left', 'm2'),
    turnout('T7', 'main', 934, 'up', 'right', 'sk'),
    turnout('T8', 'main', 494, 'up', 'left', 'pd'),
    turnout('T9', 'sk', 178, 'up', 'right', 'sk2'),
    turnout('T10', 'sk2', 24, 'up', 'right', 'sk3'),
  ];
  const gaps: [string, number][] = [
    ['main', 60],
    ['uc1', 46],
    ['uc3', 32],
    ['main', 236],
    ['uc1', 232],
    ['uc3', 212],
    ['main', 300],
    ['main', 470],
    ['main', 524],
    ['m2', 42],
    ['pd', 34],
    ['main', 700],
    ['m2', 226],
    ['main', 748],
    ['main', 924],
    ['main', 980],
    ['main', 1166],
    ['sk', 46],
    ['sk', 170],
    ['sk', 216],
    ['sk2', 56],
    ['sk3', 32],
  ];
  d.features = [
    ...gaps.map(([line, at], i) => gap(`g${i + 1}`, line, at)),
    signal('UC1E', 'uc1', 232, 'up'),
    signal('UC2E', 'main', 236, 'up'),
    signal('UC3E', 'uc3', 212, 'up'),
    signal('UC1W', 'uc1', 46, 'down'),
    signal('UC2W', 'main', 60, 'down'),
    signal('UC3W', 'uc3', 32, 'down'),
    signal('UW', 'main', 300, 'down'),
    signal('ME', 'main', 470, 'up'),
    signal('M1W', 'main', 524, 'down'),
    signal('M2W', 'm2', 42, 'down'),
    signal('PDW', 'pd', 34, 'down'),
    signal('M1E', 'main', 700, 'up'),
    signal('M2E', 'm2', 226, 'up'),
    signal('MW', 'main', 748, 'down'),
    signal('FE', 'main', 924, 'up'),
    signal('FW', 'main', 980, 'down'),
    signal('UE', 'main', 1166, 'up'),
    signal('SBW', 'sk', 46, 'down'),
    signal('SE', 'sk', 170, 'up'),
    signal('SK1W', 'sk', 216, 'down'),
    signal('SK2W', 'sk2', 56, 'down'),
    signal('SK3W', 'sk3', 32, 'down'),
    { id: 'x1', kind: 'buffer', line: 'pd', at: cm(190), certainty: 'fixed' },
    { id: 'x2', kind: 'buffer', line: 'sk', at: cm(320), certainty: 'fixed' },
    { id: 'x3', kind: 'buffer', line: 'sk2', at: cm(150), certainty: 'fixed' },
    { id: 'x4', kind: 'buffer', line: 'sk3', at: cm(100), certainty: 'fixed' },
    { id: 'h1', kind: 'hidden', line: 'main', at: cm(0), to: cm(300), certainty: 'fixed' },
    {
      id: 'p1',
      kind: 'platform',
      line: 'main',
      at: cm(560),
      to: cm(680),
      name: 'Marrowick platform',
      certainty: 'fixed',
    },
    { id: 'p2', kind: 'platform', line: 'sk', at: cm(224), to: cm(316), name: 'Skerrin platform', certainty: 'fixed' },
    { id: 'k1', kind: 'levelCrossing', line: 'main', at: cm(846), to: cm(856), name: 'Mill Lane', certainty: 'fixed' },
    { id: 'k2', kind: 'landmark', line: 'main', at: cm(390), name: 'Ondrel viaduct', certainty: 'fixed' },
  ];
  const blocks: [string, string, number][] = [
    ['UA', 'main', 40],
    ['UC1', 'uc1', 140],
    ['UC2', 'main', 150],
    ['UC3', 'uc3', 120],
    ['UB', 'main', 290],
    ['UM', 'main', 390],
    ['MA', 'main', 510],
    ['M1', 'main', 620],
    ['M2', 'm2', 130],
    ['PD', 'pd', 110],
    ['MB', 'main', 742],
    ['MF', 'main', 840],
    ['FJ', 'main', 960],
    ['FM', 'main', 1080],
    ['SB', 'sk', 110],
    ['SA', 'sk', 200],
    ['SK1', 'sk', 270],
    ['SK2', 'sk2', 100],
    ['SK3', 'sk3', 66],
  ];
  for (const [name, line, at] of blocks) block(d, name, line, at);
  d.areas = [
    {
      id: 'a1',
      name: 'Undercroft',
      line: 'main',
      from: cm(0),
      to: cm(300),
      purpose: 'Hidden yard. Trains turn up and wait here out of sight.',
    },
    {
      id: 'a2',
      name: 'Marrowick',
      line: 'main',
      from: cm(470),
      to: cm(748),
      purpose: 'Crossing loop and freight spur.',
    },
    { id: 'a3', name: 'Fenhallow', line: 'main', from: cm(924), to: cm(980), purpose: 'Junction for Skerrin.' },
  ];
  const all = () => true;
  const none = () => false;
  d.vehicles = [
    vehicle('v-tank', 'Tank engine', 13, [3, 6, 9, 11.5], all, 240),
    vehicle('v-mail', 'Mail engine', 24, [3, 7, 10, 13, 20], all, 390, 'tenderEngine'),
    vehicle('v-railcar', 'Railcar', 27, [3, 6, 21, 24], all, 310, 'railcar'),
    lit(vehicle('v-coach', 'Lit coach', 26, [3, 6, 20, 23], all, 175, 'coach')),
    vehicle('v-trailer', 'Local coach', 20, [3, 5.5, 14.5, 17], (axle) => axle === 0 || axle === 3, 142, 'coach'),
    vehicle('v-wagon', 'Empty quarry wagon', 12, [3, 9], none, 38, 'wagon'),
    vehicle('v-wagon-r', 'Empty quarry wagon with a resistor axle', 12, [3, 9], (axle) => axle === 0, 39, 'wagon'),
    vehicle('v-van', 'Brake van', 12, [3, 9], (axle) => axle === 1, 96, 'van'),
  ];
  d.trains = [
    train(
      'tr-mail',
      'Night mail',
      ['v-mail', 'v-coach', 'v-coach', 'v-coach', 'v-coach'],
      80,
      { line: 'main', at: 226, facing: 'up' },
      { up: 50, down: 80, delayMs: 800, is: 'measured' },
    ),
    train(
      'tr-stopper',
      'Morning stopper',
      ['v-tank', 'v-trailer', 'v-trailer', 'v-trailer', 'v-trailer'],
      60,
      { line: 'main', at: 690, facing: 'up' },
      { up: 60, down: 90, delayMs: 500, is: 'measured' },
    ),
    train(
      'tr-quarry',
      'Quarry empties',
      [
        'v-tank',
        'v-wagon',
        'v-wagon-r',
        'v-wagon',
        'v-wagon',
        'v-wagon-r',
        'v-wagon',
        'v-wagon',
        'v-wagon-r',
        'v-wagon',
        'v-wagon',
        'v-van',
      ],
      45,
      { line: 'uc3', at: 202, facing: 'up' },
      { up: 30, down: 60, delayMs: 1000, is: 'assumed' },
    ),
    train(
      'tr-railcar',
      'Skerrin railcar',
      ['v-railcar'],
      55,
      { line: 'sk', at: 226, facing: 'down' },
      { up: 80, down: 110, delayMs: 400, is: 'measured' },
    ),
  ];
  return d;
}
