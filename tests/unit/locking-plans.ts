import type { LayoutDocument } from '../../src/core/survey';
import { train, vehicle } from '../../src/demo/build';
import { planned } from '../../src/demo/plans';

/** Detectors and names of blocks. */
const blocks = (...at: [number, string][]) =>
  at.map(([cm, name]) => `detector ${cm}\nblock ${cm} "${name}"`).join('\n');

/** A loop on a single line, signalled at both ends of it and of both its roads. */
export const LOOP = `line Main 400
line Loop 160
line Main
gap 100
turnout 110 left "T1" to Loop start clear 12
gap 140
gap 240
turnout 270 left trailing "T2" to Loop end clear 12
gap 280
signal up 100 A
signal down 280 B
signal up 240 ME
signal down 140 MW
${blocks([50, 'W'], [105, 'P'], [200, 'M'], [275, 'Q'], [350, 'E'])}
line Loop
gap 30
gap 130
signal up 130 LE
signal down 30 LW
${blocks([80, 'L'])}`;

/**
 * A junction of a double track: the branch leaves the eastbound track by T1; the track back from it crosses the eastbound one at X1, beyond T1, and
 * joins the westbound one at T2. Each track is run one way.
 */
export const JUNCTION = `line East 400 one way up
line West 400 one way down
line BranchOut 200 one way up
line BranchIn 200 one way down
line East
gap 150
turnout 180 right "T1" to BranchOut start clear 12
gap 290
signal up 150 D1
crossing 240 with BranchIn 60 angle 30 clear 10 "X1"
${blocks([70, 'DA'], [170, 'DJ'], [340, 'DB'])}
line BranchOut
gap 40
signal up 40 BO
${blocks([120, 'BO1'])}
line West
gap 150
gap 290
turnout 200 left "T2" to BranchIn start clear 12
signal down 290 U1
signal down 150 UX
${blocks([70, 'UB'], [250, 'UJ'], [340, 'UA'])}
line BranchIn
gap 20
gap 120
signal down 120 BU
${blocks([60, 'BJ'], [160, 'BI1'])}`;

/**
 * A main line with a siding that joins it by T1; on the siding T2 leads into a sand drag, so that what rolls down there misses the main line. No
 * signal stands on the siding. T3 lies elsewhere, on a line of its own.
 */
export const TRAP = `line Main 400
line Siding 200
line Sand 60
line Works 300
line Quarry 100
line Main
buffer 0
buffer
gap 100
turnout 130 right trailing "T1" to Siding end clear 12
gap 160
gap 300
signal up 100 A
signal up 300 B
detector 50
block 50 W
detector 130
block 130 P
detector 230
block 230 M
detector 350
block 350 E
line Siding
buffer 0
turnout 100 left "T2" to Sand start clear 12
gap 60
gap 170
detector 30
block 30 S
detector 100
block 100 T
detector 185
block 185 U
line Sand
buffer
line Works
buffer 0
buffer
gap 100
turnout 120 left "T3" to Quarry start clear 12
gap 150
signal up 100 V
detector 50
block 50 X
detector 120
block 120 Y
detector 250
block 250 Z
line Quarry
buffer`;

/** The same loop with spots at the far end of every block that a route leads into; told apart by the way trains come. */
export const MARKED_LOOP = `${LOOP}
line Main
detector optical 235 "M east"
detector optical 145 "M west"
detector optical 395 "E end"
detector optical 5 "W end"
line Loop
detector optical 125 "L east"
detector optical 35 "L west"
line Main`;

/** That loop with so many railcars, at most two: the first stands in rear of A, the second in rear of B. */
export function railcarsOnLoop(count: number): LayoutDocument {
  const d = planned({ name: 'Loop', text: LOOP });
  const line = d.lines[0]!.id;
  d.vehicles = ['v1', 'v2']
    .slice(0, count)
    .map((id) => vehicle(id, id, 20, [2, 5, 15, 18], () => true, 200, 'railcar'));
  const starts = [
    { line, at: 90, facing: 'up' as const },
    { line, at: 290, facing: 'down' as const },
  ];
  const rates = { up: 100, down: 150, delayMs: 300, is: 'assumed' } as const;
  d.trains = d.vehicles.map(({ id }, i) => train(`tr${i}`, `Railcar ${i}`, [id], 40, starts[i]!, rates));
  return d;
}
