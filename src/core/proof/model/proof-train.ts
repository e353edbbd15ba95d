import type { Partition } from '../../detection';
import { POWER_LEVELS, sensorKind } from '../../kinds';
import { fastest, mmOf, mostBrakingMm, STOP_SHORT_MM } from '../../measure';
import { entriesBetween, type Footprint, footprintOf } from '../../plant';
import { type SignalsOn, signalsAlong } from '../../signals';
import { type Rehearsal, slotOf, type Telling, takenOf, tellingsOf } from '../../simulation';
import type { System } from '../../system';
import type { Placement } from './placement';
import { PlacementsOfTrain } from './placements';
import { withOwnStart } from './start-and-rest';
import { SAME_MM } from './unnoticed';

/** A part of a train’s body on a piece: between which distances along the piece its lower and its higher end are. */
export interface Ground {
  piece: number;
  low: [number, number];
  high: [number, number];
  /** Its nose points towards increasing distance. */
  up: boolean;
}

/** A train of a proof: everywhere it can be, and what is true of it there. */
export interface ProofTrain {
  id: string;
  name: string;
  placements: Placement[];
  /** How far its nose runs within a placement, in mm. */
  longMm(placement: number): number;
  /** From where it stands to where its first placement begins, in mm: a negative number. */
  leadMm: number;
  /** Bits of the blocks, of the pieces under its body and of the fouling places, for each placement. */
  blocks: Bits;
  pieces: Bits;
  zones: Bits;
  footprints: Footprint[];
  grounds: Ground[][];
  /** What is said of it for each way of turning back, and when it is set down where it began. */
  tellings: Said[][][];
  toldAtStart: Said[];
}

/** What a person says of a train, by an input that the rules have. */
export interface Said {
  trafficSection: number;
  slot: number;
  always?: true;
}

/** Sets of numbers, one for each placement, as bits of 32-bit words. */
export interface Bits {
  words: number;
  of: Int32Array;
}

function bitsOf(sets: number[][], count: number): Bits {
  const words = Math.max(1, Math.ceil(count / 32));
  const of = new Int32Array(sets.length * words);
  sets.forEach((set, i) => {
    for (const member of set) of[i * words + (member >> 5)]! |= 1 << (member & 31);
  });
  return { words, of };
}

/** Whether two sets have a member in common. */
export function meet(a: Bits, i: number, b: Bits, k: number): boolean {
  for (let w = 0; w < a.words; w++) if (a.of[i * a.words + w]! & b.of[k * b.words + w]!) return true;
  return false;
}

/** The trains that stand on the track of a rehearsal, ready for a proof. */
export function proofTrainsOf({ plant, system }: Rehearsal, mayTurn: boolean, mayMiss: boolean): ProofTrain[] {
  const pulsing = new Set(system.sensors.filter(({ kind }) => sensorKind(kind).pulses).map(({ id }) => id));
  const { partition, readings, trafficSections } = system;
  const said = (tellings: Telling[]): Said[] =>
    tellings.flatMap((telling) => {
      const slot = slotOf(system, telling);
      return slot === undefined ? [] : [{ trafficSection: telling.trafficSection, slot, always: telling.always }];
    });
  const signalsOn: SignalsOn = signalsAlong(partition, readings);
  const powers = powersOf(system);
  const lookedAt = {
    blocks: [...new Set(system.releases.flatMap(({ blocks }) => blocks))],
    motors: [...new Set(system.releases.flatMap(({ motors }) => motors))],
  };
  const begun = plant.trains.map((rolling) => {
    const {
      consist,
      topMmPerS: top,
      brakingMmPerS2,
    } = system.plant.trains.find(({ id }) => id === rolling.figures.id)!;
    const under = rolling.body().map(({ piece }) => partition.pieces[piece]!.section);
    const cutOff = under.every((section) => !POWER_LEVELS[plant.power[section]!]!.feeds);
    const motion = {
      brakingMm: Math.max(mostBrakingMm(top, brakingMmPerS2), STOP_SHORT_MM + 1),
      topMmPerS: fastest(top),
      closes: system.plant.closes,
      powers,
      ...(system.releases.length > 0 && { lookedAt }),
      ...(cutOff && { beginsCutOffBy: [...new Set(under.map((section) => powers[section]!))] }),
      ...(mayMiss && {
        misses: (field: number) => partition.fields.all[field]!.sensors.some((id) => pulsing.has(id)),
      }),
    };
    const all = new PlacementsOfTrain(partition, signalsOn, consist, motion, mayTurn);
    return { rolling, consist, ...all.from({ tape: rolling.body(), noseMm: rolling.head }) };
  });
  return begun.map((one) => {
    const { rolling, consist } = one;
    const { placements, leadMm } = beginsNear(one, begun) ? fromWhereItStands(one) : one;
    /** What it holds anywhere in a placement: from where its last wheel begins to where its nose ends. */
    const held = placements.map((p) => {
      const wheelMm = p.turned ? consist.lengthMm - consist.wheelsMm[0] : consist.wheelsMm[1];
      const under = entriesBetween(p.tape, p.noseMm[0] - wheelMm, p.noseMm[1]);
      return under.filter(({ piece }) => p.blocks.includes(partition.pieces[piece]!.block));
    });
    return {
      id: rolling.figures.id,
      name: rolling.figures.name,
      placements,
      longMm: (placement) => placements[placement]!.noseMm[1] - placements[placement]!.noseMm[0],
      leadMm,
      blocks: bitsOf(
        placements.map((p) => p.blocks),
        partition.blocks.length,
      ),
      pieces: bitsOf(
        placements.map((p) => p.tape.map(({ piece }) => piece)),
        partition.pieces.length,
      ),
      zones: bitsOf(
        placements.map((p) => p.zones),
        2 * partition.graph.fouling.length,
      ),
      footprints: held.map((entries) => footprintOf(partition, trafficSections, entries)),
      grounds: placements.map((p) => groundsOf(partition, p, consist.lengthMm)),
      tellings: placements.map(({ turns }) => turns.map(({ standsOn }) => said(tellingsOf(system, standsOn)))),
      toldAtStart: said([...tellingsOf(system, rolling.held()), ...takenOf(system, rolling.held())]),
    };
  });
}

interface Begun {
  placements: Placement[];
  leadMm: number;
}
/** Another train begins on track on which this one begins. */
function beginsNear(one: Begun, all: readonly Begun[]): boolean {
  const track = new Set(one.placements[0]!.tape.map(({ piece }) => piece));
  return all.some((other) => other !== one && other.placements[0]!.tape.some(({ piece }) => track.has(piece)));
}
const fromWhereItStands = ({ placements, leadMm }: Begun): Begun =>
  leadMm < -SAME_MM ? { placements: withOwnStart(placements, leadMm), leadMm: 0 } : { placements, leadMm };

/** The output for power that switches each section, by its number; -1 for none. */
function powersOf({ partition, terminals }: System): number[] {
  const powers = terminals.ofKind('power');
  return partition.sections.map(({ index }) => powers.findIndex(({ of }) => of === index));
}

function groundsOf(partition: Partition, { tape, noseMm }: Placement, lengthMm: number): Ground[] {
  return tape.map(({ piece, exit, from }) => {
    const long = mmOf(partition.pieces[piece]!.to - partition.pieces[piece]!.from);
    const within = (at: number) => Math.min(long, Math.max(0, at - from));
    const tail = [within(noseMm[0] - lengthMm), within(noseMm[1] - lengthMm)] as const;
    const nose = [within(noseMm[0]), within(noseMm[1])] as const;
    return exit === 1
      ? { piece, low: [tail[0], tail[1]], high: [nose[0], nose[1]], up: true }
      : { piece, low: [long - nose[1], long - nose[0]], high: [long - tail[1], long - tail[0]], up: false };
  });
}
