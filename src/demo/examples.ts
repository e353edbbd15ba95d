import type { FindingKind } from '@/core/findings';
import { cm } from '@/core/measure';
import { giveOwnVehicles, type LayoutDocument } from '@/core/survey';
import { ONE_PULSE, OVERTAKEN, PUSH_PULL, ROAM, THREE, TURNS } from './automatic-plans';
import { lit, plastic, train, vehicle } from './build';
import {
  ARMS,
  ARRIVAL,
  BOARDS,
  BUTTONS,
  CIRCUITS,
  DOUBLE,
  FOUR_ROADS,
  LADDER,
  LOOPS,
  MAGNET,
  PLASTIC,
  POST,
  REVERSE,
  SPOTS,
  WORTH,
  YARD,
} from './example-plans';
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
    teaches: ['block inferred from spots alone'],
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
      'Signals of two lamps, worked by a magnet under the engine. In Shed a toggle is turned over by each pulse; the other blocks are inferred from spots of which one sets and another resets.',
    first:
      'Rehearse: let the train run round, let a spot in Shed miss its next pulse, and see which block never finds back.',
    text: MAGNET,
    trains: [['Shuttle', 'Main', 90, 'up']],
    consist: ['v-magnet'],
    teaches: ['toggle that can fall out of step', 'train that a count loses', 'block inferred by counting'],
  },
  {
    id: 'arrival',
    name: 'Locked until arrived',
    story:
      'A goods train of which detectors see the engine alone. Its turnout stays locked from the moment in which the train is cleared over it until its nose is on the stop mark, where a spot stands.',
    first:
      'Lock: read what lets T1 go. Rehearse: let the train run, and ask for T1 on its way; then stop it short of the mark, look, and give up its run.',
    text: ARRIVAL,
    trains: [['Goods', 'Main', 140, 'up']],
    consist: ['v-engine', 'v-plain', 'v-plain', 'v-plain'],
    teaches: ['unseen tail'],
  },
  {
    id: 'four-roads',
    name: 'Four roads and a double crossover',
    story:
      'A terminus: two tracks, a double crossover, four roads. People set routes by entry and exit; the points are thrown for them, and of two that conflict one is set at a time.',
    first:
      'Lock: point at a name under “Not with”. Rehearse: select signal A and set it to One; then try to set R2 to DD, and read why not.',
    text: FOUR_ROADS,
    trains: [
      ['Express', 'Arrivals', 130, 'up'],
      ['Stopper', 'Departures', 360, 'down'],
    ],
  },
  {
    id: 'buttons',
    name: 'Two buttons, four lamps',
    story:
      'Two turnouts, a button and an indicator for each, and nothing else: no gap, no detector, no signal. An indicator shows what its turnout reports, not what was asked for.',
    first: 'Rehearse: throw T1 and T2, and watch the lamps beside them while the points move.',
    text: BUTTONS,
    trains: [],
  },
  {
    id: 'turns',
    name: 'A siding that takes turns',
    story:
      'A circuit with two roads. Whoever arrives in one lets go the train in the other, and sets the points for it: two trains keep their roads for ever, a third would have them rotate.',
    first:
      'Lock: look how many trains can run, and read the cycle. Rehearse: let both run, then give T1 a pulse by hand while one waits.',
    text: TURNS,
    trains: [
      ['Railcar set', 'Main', 280, 'up'],
      ['Pickup goods', 'Road 2', 186, 'up'],
    ],
  },
  {
    id: 'three',
    name: 'Two roads, three trains',
    story:
      'Two trains wait while the third is on the line. One road is fed at a time, and only while the block ahead is clear; the points lie for the road that was left.',
    first: 'Lock: look how many trains can run. With one too few, or one too many, everything comes to a stand.',
    text: THREE,
    trains: [
      ['Express', 'Main', 280, 'up'],
      ['Stopper', 'Road 2', 186, 'up'],
      ['Goods', 'Main', 570, 'up'],
    ],
  },
  {
    id: 'pulse',
    name: 'One pulse, one departure',
    story:
      'A train on its way over the contact gives one pulse: the starter of a train that waits clears, the points lie for the empty road, and who leaves resets the signal behind it.',
    first: 'Rehearse: let both run. Then stop the train on the line, and give T1 the pulse by hand.',
    text: ONE_PULSE,
    trains: [
      ['Express', 'Main', 280, 'up'],
      ['Stopper', 'Main', 570, 'up'],
    ],
  },
  {
    id: 'push',
    name: 'Push or pull',
    story:
      'A train waits at the station until another comes up behind and pushes it on. What runs with one train, two or three depends on who releases whom, and on how it is remembered.',
    first:
      'Lock: look how many trains can run; then select signal Station, let it be released by the train ahead instead, and look again.',
    text: PUSH_PULL,
    trains: [
      ['Express', 'Main', 90, 'up'],
      ['Stopper', 'Main', 370, 'up'],
    ],
  },
  {
    id: 'roam',
    name: 'Roam free',
    story:
      'Each train looks for an empty road ahead, has its points set, and keeps it until it has come in; who came first goes first. Nobody throws anything.',
    first: 'Rehearse: let all three run. Then send one to Four, and see how the others make way.',
    text: ROAM,
    trains: [
      ['Express', 'Main', 280, 'up'],
      ['Stopper', 'North', 186, 'up'],
      ['Goods', 'Main', 780, 'up'],
    ],
  },
  {
    id: 'overtaken',
    name: 'Overtaken',
    story:
      'Who comes while the loop is empty goes in and waits; the next one goes by on the straight road, and as it leaves lets go the one that waited.',
    first:
      'Rehearse: let both run, and watch them change places once a round. Then lift one off, and see the other wait.',
    text: OVERTAKEN,
    trains: [
      ['Express', 'Main', 280, 'up'],
      ['Goods', 'Main', 570, 'up'],
    ],
  },
  {
    id: 'boards',
    name: 'Three boards in a chain',
    story:
      'Three boards with one spot each: the nose of a train drops the signal that it passes to stop, and steps on the one before. The last board has none after it: nothing tells it that the train has gone.',
    first:
      'Signal: move the train along and watch all three aspects; then Prove, and read what the nose of a train leaves unsaid.',
    text: BOARDS,
    trains: [
      ['Railcar', 'Branch', 120, 'up'],
      ['Branch train', 'Branch', 330, 'up'],
    ],
    teaches: ['chain that stays at stop', 'block released by the nose'],
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
  giveOwnVehicles(d);
  return d;
}
