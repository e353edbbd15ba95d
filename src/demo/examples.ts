import type { FindingKind } from '@/core/findings';
import { cm } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { lit, plastic, train, vehicle } from './build';
import { type Plan, planned } from './plans';

/** A small layout to open as a copy: what it is, and what to try first. */
export interface Example extends Plan {
  id: string;
  story: string;
  first: string;
  /** Each with the line it stands on, where its nose is, and which way it faces. */
  trains: readonly [name: string, line: string, at: number, facing: 'up' | 'down'][];
  /** What the trains are made of, where it is something else than an engine and a coach. */
  consist?: readonly string[];
  /** The kinds of findings that it is about: they are there to be found and mended. */
  teaches?: readonly FindingKind[];
}

/** A block with its detector, at a place; short for what is said of nearly every block. */
const block = (at: number, name: string) => `block ${at} ${name}\ndetector ${at} ${name}`;
const blocks = (...all: [at: number, name: string][]) => all.map(([at, name]) => block(at, name)).join('\n');

const CIRCUITS = `line Outer 560 circuit
line Inner 520 circuit
line Outer
crossover 200 to Inner 190 long 34 no 4
gap 170
255
400
500
signal 170 O1
signal 400 O2
signal 500 O3
${blocks([210, 'X'], [320, 'OA'], [450, 'OB'], [20, 'OC'])}
line Inner
gap 135
220
340
440
signal 135 I1
signal 340 I2
signal 440 I3
${blocks([280, 'IA'], [390, 'IB'], [20, 'IC'])}`;

const LOOPS = `line Main 760
buffer 0
buffer
passing loop 140 to 330 left "West loop" long 196 no 4
passing loop 450 to 640 "East loop" long 196 no 4
gap 110
168
302
360
420
478
612
670
signal up 110 WE
signal down 168 WW
signal up 302 WS
signal down 360 SW
signal up 420 SE
signal down 478 EW
signal up 612 EE
signal down 670 EB
${blocks([50, 'West'], [150, 'W1'], [240, 'WM'], [320, 'W2'], [390, 'Single'], [460, 'E1'], [550, 'EM'], [630, 'E2'], [720, 'East'])}
line "West loop"
gap 30
166
signal down 30 LW
signal up 166 LS
${block(100, 'WL')}
line "East loop"
gap 30
166
signal down 30 LE
signal up 166 LB
${block(100, 'EL')}`;

const REVERSE = `line Main 700
buffer 0
reverse loop 400 left Round long 270 no 4
gap 200
365
690
gap 430 both
signal up 200 A
signal down 200 Home
signal up 365 R
signal down 430 OutM
signal up 690 L1
signal down 690 L2
${blocks([100, 'Start'], [280, 'Approach'], [400, 'Throat'], [560, 'Loop'])}
line Round
gap 30 both
signal down 30 OutR
${block(150, 'Back')}`;

const LADDER = `line Lead 330
buffer 0
ladder 80 roads 4 every 34 left Road long 170 no 4
buffer
gap 50
214
signal up 50 Y
signal down 214 R5
${blocks([20, 'Lead'], [130, 'Throat'], [280, 'R5'])}
${[1, 2, 3, 4].map((n) => `line "Road ${n}"\ngap 30\nsignal down 30 R${n}\n${block(100, `R${n}`)}`).join('\n')}`;

const YARD = `line Lead 420
buffer 0
ladder 80 roads 6 every 34 left Road long 170 no 4
buffer
gap 50
282
signal up 50 Y
signal down 282 R7
${blocks([20, 'Lead'], [165, 'Throat'], [350, 'R7'])}
detector 410 optical
${[1, 2, 3, 4, 5, 6].map((n) => `line "Road ${n}"\ngap 30\nsignal down 30 R${n}\n${block(100, `R${n}`)}\ndetector 160 optical`).join('\n')}`;

const PLASTIC = `line Main 520 circuit
passing loop 100 to 320 left Loop long 226 no 4
gap 70
128
292
350
470
signal up 70 W
signal down 128 MW
signal up 292 ME
signal down 350 E
signal up 470 PU
signal down 470 PD
${blocks([90, 'WT'], [210, 'M'], [310, 'ET'], [410, 'P1'], [500, 'P2'])}
line Loop
gap 30
196
signal down 30 LW
signal up 196 LE
${block(110, 'L')}`;

/** Two spots beside a boundary, one on either side. */
const pair = (at: number) => `detector ${at - 8} optical\ndetector ${at + 8} optical`;

const SPOTS = `line Branch 560
buffer 0
buffer
mark 130
270
430
signal up 130 A
signal up 270 B
signal up 430 C
signal down 130 D
signal down 270 E
signal down 430 F
${[130, 270, 430].map(pair).join('\n')}
block 60 Quay
block 200 Cutting
block 350 Bank
block 500 Quarry`;

const WORTH = `line Main 560 circuit
line Yard 230
line "Road 2" 150
line Main
turnout 300 left facing T1 to Yard no 4
area 0 to 280 Line for "Trains follow each other" admits automatic
gap 60
200
270
345
450
signal up 60 A
signal up 200 B
signal up 270 Home
signal up 345 C
signal up 450 D
${blocks([130, 'M1'], [235, 'M2'], [320, 'Fork'], [400, 'M3'], [510, 'M4'])}
line Yard
area 60 to 230 Yard for "Cars are sorted" admits on sight leaves "No signals inside: everything is slow, and everybody sees everything"
turnout 70 left facing T2 to "Road 2" no 4
buffer
gap 45
${blocks([60, 'Yard'])}
line "Road 2"
buffer`;

/** Two magnetic spots over a boundary, so near that both notice the same magnet at once. */
const magnets = (at: number) => `detector ${at - 0.5} reed\ndetector ${at + 0.5} reed`;

const MAGNET = `line Main 600 circuit
mark 100
300
500
signal up 100 S1 two-aspect
signal up 300 S2 two-aspect
signal up 500 S3 two-aspect
${[100, 300, 500].map(magnets).join('\n')}
detector 200 toggle
block 200 Shed
block 400 Bank
block 550 Mill`;

const BOARDS = `line Branch 800
buffer 0
buffer
mark 150
350
550
signal up 150 Board1 works "timed caution"
signal up 350 Board2 works "timed caution"
signal up 550 Board3 works "timed caution"
${[150, 350, 550].map(pair).join('\n')}
detector 700 virtual end
block 100 Start
block 250 Weir
block 450 Ford
block 650 Beyond`;

const ARMS = `line Main 900
line Branch 300
line Main
buffer 0
buffer
turnout 420 left T1 no 6 to Branch start
gap 200
400
470
650
signal up 200 Distant speed-signals
signal up 400 "Junction" junction-arms
signal up 650 Main
signal down 470 Trunk
signal down 200 Out
${blocks([50, 'Start'], [300, 'Approach'], [430, 'Points'], [600, 'M1'], [800, 'M2'])}
line Branch
buffer
gap 50
180
signal up 180 Quarry
signal down 50 Branch
${blocks([100, 'B1'], [250, 'B2'])}`;

const DOUBLE = `line East 560 circuit
line West 520 circuit
line East
crossover 200 to West 190 long 34 no 4
gap 170
255
400
500
signal up 170 E1 speed-signals
signal up 400 E2 speed-signals
signal up 500 E3 speed-signals
${blocks([210, 'X'], [320, 'EA'], [450, 'EB'], [20, 'EC'])}
line West
gap 135
220
340
440
signal down 220 W1
signal down 340 W2
signal down 440 W3
${blocks([280, 'WA'], [390, 'WB'], [20, 'WC'])}`;

const POST = `line Main 620
buffer 0
buffer
area 340 to 620 Yard for "Cars are sorted" admits operator empty caution leaves "Nothing inside: crews look out for each other"
gap 160
340
470
signal up 160 Main1
signal up 340 Yard1 low-signal works "authority"
signal up 470 Yard2 low-signal works "authority"
${blocks([80, 'M1'], [250, 'M2'], [400, 'Y1'], [540, 'Y2'])}`;

/** The shelf of examples, in the order in which they are shown. */
export const EXAMPLES: readonly Example[] = [
  {
    id: 'circuits',
    name: 'Two circuits and a crossover',
    story:
      'Two trains go round beside each other, and a crossover leads from the outer circuit to the inner one. Its two turnouts are thrown as one, and the block they lie in is held by one train at a time.',
    first: 'Rehearse: let both run, then throw T1 and send the outer train to block IA.',
    text: CIRCUITS,
    trains: [
      ['Outer train', 'Outer', 160, 'up'],
      ['Inner train', 'Inner', 330, 'up'],
    ],
  },
  {
    id: 'loops',
    name: 'Point to point with two loops',
    story:
      'A single line with a loop at either end, on which two trains come towards each other. Only one of them may hold the stretch between the loops.',
    first: 'Prove: look at what can happen, then take away signal SE and prove again.',
    text: LOOPS,
    trains: [
      ['Eastbound', 'Main', 100, 'up'],
      ['Westbound', 'Main', 680, 'down'],
    ],
  },
  {
    id: 'reverse-loop',
    name: 'Reverse loop',
    story:
      'A line that comes round to itself and goes back the way it came. Points and signals see to it that a train that comes out meets nobody who goes in.',
    first: 'Signal: set an axle down in block Loop and read why R shows stop.',
    text: REVERSE,
    trains: [['Railcar', 'Main', 190, 'up']],
  },
  {
    id: 'ladder',
    name: 'Ladder of five roads',
    story:
      'A yard whose roads leave one after the other. Each road is a block, and the throat before them is one more that a single train may hold.',
    first: 'Rehearse: send the goods to block R2 and see which points are thrown on its way.',
    text: LADDER,
    trains: [['Goods', 'Lead', 45, 'up']],
  },
  {
    id: 'inputs',
    name: 'Sixteen inputs under the yard',
    story:
      'A yard of seven roads, each with a detector of its section and a spot that tells when a train comes near its end. All of them are to be wired to modules under the board.',
    first: 'Detect: give every sensor its input, look at how the wires run, and print the labels.',
    text: YARD,
    trains: [['Goods', 'Lead', 45, 'up']],
  },
  {
    id: 'plastic',
    name: 'Plastic wheels and one lit tail',
    story:
      'A mixed train of plastic wheels with a lit van behind: between the two nothing is seen. Where it is longer than the points are, they read free under it.',
    first: 'Detect: move the train along until most of it is hidden, then fit the fewest resistor axles.',
    text: PLASTIC,
    trains: [['Mixed train', 'Main', 460, 'up']],
    consist: ['v-engine', 'v-plain', 'v-plain', 'v-plain', 'v-plain', 'v-plain', 'v-van'],
    teaches: ['unseen over points'],
  },
  {
    id: 'spots',
    name: 'A branch seen by spots alone',
    story:
      'A branch whose rails are cut nowhere for detection: two optical spots at each boundary tell what has come into a block and what has gone out. What they get wrong is proved, too: two trains that turn back at one boundary look like one that went through.',
    first: 'Prove: see how a block comes to read free with a train in it, then leave turning back out and prove again.',
    text: SPOTS,
    trains: [
      ['Railcar', 'Branch', 100, 'up'],
      ['Goods', 'Branch', 240, 'up'],
    ],
    teaches: ['block told by spots alone'],
  },
  {
    id: 'worth',
    name: 'What is worth protecting?',
    story:
      'A line on which two trains follow each other, and a yard beside it in which cars are sorted. The way into the yard is protected; inside, everything runs on sight, and that is written down as decided.',
    first:
      'Traffic: read what is left out and why, keep it as a scheme, then add a signal for trains that leave the yard and compare the two.',
    text: WORTH,
    trains: [
      ['Through train', 'Main', 190, 'up'],
      ['Yard goods', 'Main', 540, 'up'],
    ],
    teaches: ['points without protection'],
  },
  {
    id: 'magnet',
    name: 'Two lamps and a magnet',
    story:
      'Signals of two lamps, worked by a magnet under the engine. In Shed a toggle is turned over by each pulse; the other blocks are told by spots of which one sets and another resets.',
    first:
      'Rehearse: let the train run round, let a spot in Shed miss its next pulse, and see which block never finds back.',
    text: MAGNET,
    trains: [['Shuttle', 'Main', 90, 'up']],
    consist: ['v-magnet'],
    teaches: ['toggle that can fall out of step', 'train that a count loses', 'block told by counting'],
  },
  {
    id: 'boards',
    name: 'Three boards in a chain',
    story:
      'Three boards, each dropped to stop by a train that passes, and stepped on by the next one and a timer. Beyond the last there is nothing that could tell it that the train has gone.',
    first: 'Signal: move the train along and watch all three aspects; then Prove, and read what Board3 cannot know.',
    text: BOARDS,
    trains: [['Railcar', 'Branch', 120, 'up']],
    teaches: ['virtual end', 'block told by spots alone'],
  },
  {
    id: 'arms',
    name: 'Junction with two arms',
    story:
      'A junction signal with an arm for each way, the upper for the main line. Each has control of its own as well as the contact of the points, so that it can hold a train.',
    first: 'Signal: select Junction, let it follow the contact alone, and read what that leaves open.',
    text: ARMS,
    trains: [['Through train', 'Main', 190, 'up']],
  },
  {
    id: 'double',
    name: 'Two tracks, one crossover',
    story:
      'A double track, each line run one way, with a crossover between them. Speed signals announce the way over it, at medium speed; the signals of the other track hold while a train crosses.',
    first: 'Signal: throw T1, move the train along, and see how E3 announces what E1 will show.',
    text: DOUBLE,
    trains: [
      ['Eastbound', 'East', 160, 'up'],
      ['Westbound', 'West', 400, 'down'],
    ],
  },
  {
    id: 'post',
    name: 'Nobody at the post',
    story:
      'A yard into which an operator lets trains, one at a time, by a button. With nobody at the post its signals let crews come in slowly, on sight.',
    first:
      'Rehearse: select Yard1, take the post, and clear it for the goods; then leave the post and read what it shows.',
    text: POST,
    trains: [['Goods', 'Main', 140, 'up']],
  },
];

/** An example as a layout of one’s own. */
export function exampleLayout({ trains, consist = ['v-engine', 'v-coach'], ...plan }: Example): LayoutDocument {
  const d = planned(plan);
  d.notes = `${plan.story} ${plan.first}`;
  d.vehicles = [
    vehicle('v-engine', 'Engine', 14, [3, 6, 9, 12], () => true, 260),
    vehicle('v-coach', 'Coach', 16, [2, 4, 12, 14], (axle) => axle === 0 || axle === 3, 90, 'coach'),
    plastic(vehicle('v-plain', 'Plastic wagon', 12, [3, 9], () => false, 35, 'wagon')),
    { ...vehicle('v-magnet', 'Railcar with a magnet', 20, [2, 5, 15, 18], () => true, 180), magnetAt: cm(2) },
    lit(vehicle('v-van', 'Lit van', 12, [3, 9], () => true, 60, 'van')),
  ].filter(({ id }) => consist.includes(id) || id === 'v-engine' || id === 'v-coach');
  d.trains = trains.map(([name, line, at, facing], i) => {
    const on = d.lines.find((one) => one.name === line)!.id;
    return train(
      `tr${i + 1}`,
      name,
      [...consist],
      60,
      { line: on, at, facing },
      { up: 60, down: 90, delayMs: 500, is: 'assumed' },
    );
  });
  return d;
}
