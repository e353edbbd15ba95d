import { blocksOn, consistOf, resistorAxles, takenOff, turnedRound, unseenOf } from '../detection';
import type { Fix } from '../findings';
import { fromMm, layoutSpeedMmPerS, STOP_SHORT_MM, showLength, stoppingNeed } from '../measure';
import { faceToFace } from '../plant';
import { type CounterexampleStep, type Explain, type Moment, meet, type ProofModel, type Property } from '../proof';
import type { HazardId } from '../simulation';
import type { Edit, LayoutDocument } from '../survey';
import { howItCameIn, letPast } from './how-it-came-in';

/** Why a counterexample ends in a hazard, in the trade’s words, with what to try. */
export interface Cause {
  /** What now happens, where, and to whom. */
  says: string;
  /** Why, where it can be told. */
  why?: string;
  advice?: string;
  fixes: Fix<Edit>[];
}

/** The two trains that a hazard between trains is about, as they stand at the end of a counterexample. */
function pairFor(model: ProofModel, holds: (a: number, b: number) => boolean): [number, number] | undefined {
  for (let a = 0; a < model.trains.length; a++)
    for (let b = a + 1; b < model.trains.length; b++)
      if (!model.isOff(a) && !model.isOff(b) && holds(a, b)) return [a, b];
  return undefined;
}

/** What the telling of a cause looks at: the model in the state that the last step of a counterexample has led to. */
function lookAt(
  document: LayoutDocument,
  model: ProofModel,
  counterexample: CounterexampleStep[],
  moments: readonly Moment[],
) {
  const { system, trains } = model;
  const { at } = model.present;
  const last = counterexample[counterexample.length - 1]?.says;
  return {
    model,
    counterexample,
    moments,
    document,
    system,
    trains,
    at,
    last,
    partition: system.partition,
    shown: (mm: number) => showLength(fromMm(mm), document.shownUnit),
    train: (t: number) => trains[t]!.name,
    placed: (t: number) => trains[t]!.placements[at[t]!]!,
    blockName: (b: number) => system.partition.blocks[b]!.name,
    trainOf: (t: number) => document.trains.find(({ id }) => id === trains[t]!.id)!,
    none: { says: last ?? 'It is so from the start.', fixes: [] } as Cause,
  };
}
type Look = ReturnType<typeof lookAt>;

/** What causes each hazard, and what would prevent it. */
const CAUSES: Record<Property, (look: Look) => Cause> = {
  'trains touch': ({
    model,
    moments,
    document,
    trains,
    at,
    partition,
    shown,
    train,
    placed,
    blockName,
    trainOf,
    none,
  }) => {
    const fouls = (a: number, b: number) => placed(a).zones.find((zone) => placed(b).zones.includes(zone ^ 1));
    const crossed = pairFor(model, (a, b) => fouls(a, b) !== undefined);
    if (crossed) {
      const [a, b] = crossed;
      const { cause } = partition.graph.fouling[fouls(a, b)! >> 1]!;
      const motor = document.turnouts.find((t) => t.id === cause);
      const crossing = document.crossings.find((c) => c.id === cause);
      const place = motor
        ? `where the legs of ${motor.name} are not yet clear of each other`
        : `on ${crossing?.name ?? 'the crossing'}`;
      const says = `${train(a)} and ${train(b)} touch ${place}.`;
      /** What it holds by its wheels is clear; what hangs over behind them is not. */
      const over = [a, b].find((t) => !placed(t).blocks.some((block) => isFouled(model, cause, block)));
      if (over !== undefined)
        return {
          says,
          why: `${shown(tailOf(document, model, over))} of ${train(over)} is not seen and still fouls the other track, though all of ${train(over)} that is seen has left.`,
          advice:
            'Cut the gap farther from there, and move the signal with it; or fit a resistor axle nearer to that end.',
          fixes: resistorAxles(document, trainOf(over)),
        };
      const inBlock = (t: number) => ({
        train: t,
        block: placed(t).blocks.find((block) => isFouled(model, cause, block))!,
      });
      return { says, ...howItCameIn(document, model, moments, [inBlock(a), inBlock(b)]) };
    }
    const pair = pairFor(model, (a, b) => meet(trains[a]!.pieces, at[a]!, trains[b]!.pieces, at[b]!));
    if (!pair) return none;
    const [a, b] = pair;
    const shared = trains[a]!.grounds[at[a]!]!.find(({ piece }) =>
      trains[b]!.grounds[at[b]!]!.some((other) => other.piece === piece),
    )!;
    const block = partition.pieces[shared.piece]!.block;
    const over = [a, b].find((t) => !placed(t).blocks.includes(block));
    if (over !== undefined) {
      const tail = tailOf(document, model, over);
      return {
        says: `${train(over === a ? b : a)} runs into the rear of ${train(over)} in ${blockName(block)}.`,
        why: `The last ${shown(tail)} of ${train(over)} hangs over the gap into ${blockName(block)}, which reads free; the next driver stops only ${shown(STOP_SHORT_MM)} before its end.`,
        advice: 'Fit a resistor axle nearer to the end of its last vehicle, or move the signal back from the gap.',
        fixes: resistorAxles(document, trainOf(over)),
      };
    }
    return {
      says: `${train(a)} and ${train(b)} touch in ${blockName(block)}.`,
      ...howItCameIn(document, model, moments, [
        { train: a, block },
        { train: b, block },
      ]),
    };
  },
  'two trains in a block': ({ model, moments, document, trains, at, train, placed, blockName, none }) => {
    const pair = pairFor(model, (a, b) => meet(trains[a]!.blocks, at[a]!, trains[b]!.blocks, at[b]!));
    if (!pair) return none;
    const [a, b] = pair;
    const block = placed(a).blocks.find((x) => placed(b).blocks.includes(x))!;
    return {
      says: `${train(a)} and ${train(b)} are both in ${blockName(block)}.`,
      ...howItCameIn(document, model, moments, [
        { train: a, block },
        { train: b, block },
      ]),
    };
  },
  'face to face': ({ model, counterexample, system, trains, at, train, none }) => {
    const pair = pairFor(model, (a, b) => faceToFace(trains[a]!.footprints[at[a]!]!, trains[b]!.footprints[at[b]!]!));
    if (!pair) return none;
    const [a, b] = pair;
    const trafficSection = trains[a]!.footprints[at[a]!]!.courses.find(({ trafficSection: s }) =>
      trains[b]!.footprints[at[b]!]!.courses.some((other) => other.trafficSection === s),
    )!.trafficSection;
    return {
      says: `${train(a)} and ${train(b)} run towards each other in ${system.trafficSections.all[trafficSection]!.name}.`,
      why: system.trafficSections.all[trafficSection]!.bothWays
        ? undefined
        : 'It is not signalled both ways, so that nothing keeps the other direction out.',
      advice: 'Signal that section from both ends, or send one of the two the other way round.',
      fixes: counterexample.length === 0 ? [takenOff(trains[a]!), takenOff(trains[b]!)] : [],
    };
  },
  'conflicting signals': ({ model, system, last, blockName, none }) => {
    const conflict = model.ofSignals.conflicting.at(model.rules.displayedIn(model.ruleState));
    if (!conflict) return none;
    const name = (signal: number) => system.readings[signal]!.signal.name;
    return {
      says: `${name(conflict.one)} and ${name(conflict.two)} are both cleared into ${blockName(conflict.block)}.`,
      why: last,
      advice: 'Let one of them ask for the other to be at stop: a way of working or a rule of your own lets both go.',
      fixes: [],
    };
  },
  'proceed over a train': ({ model, moments, document, system, trains, at, train, blockName, none }) => {
    const over = model.ofSignals.overATrain.at(model.rules.displayedIn(model.ruleState), at);
    if (!over) return none;
    const { signal, id } = { ...over.route, id: over.train };
    const held = trains[id]!.footprints[at[id]!]!.blocks;
    const block = over.route.blocks.find((one) => held.includes(one))!;
    return {
      says: `${system.readings[signal]!.signal.name} shows proceed into ${blockName(block)}, where ${train(id)} stands.`,
      ...letPast(document, model, moments.at(-1)!, block, signal, [id]),
    };
  },
  'stop not announced in time': (look) => passedAtStop(look, 'stop not announced in time'),
  'signal drops in the face of a train': (look) => passedAtStop(look, 'signal drops in the face of a train'),
  deadlock: ({ model, system, trains }) => {
    const onTrack = trains.filter((_, t) => !model.isOff(t)).length;
    const circuit = system.trafficSections.all.find((s) => s.closed && s.blocks.length <= onTrack);
    return {
      says: 'No train can ever get anywhere again.',
      why: circuit
        ? `${onTrack} trains on a circuit of ${circuit.blocks.length} blocks: each waits for the next block, and none is free.`
        : undefined,
      advice: circuit
        ? onTrack > 1
          ? 'Take one train off, or cut one more gap.'
          : 'Cut one more gap.'
        : onTrack > 1
          ? 'Take one train off, or let it turn back earlier.'
          : 'See which signal it waits at, or whether it still has room to turn back.',
      fixes: onTrack > 1 ? trains.filter((_, t) => !model.isOff(t)).map(takenOff) : [],
    };
  },
  'points set wrong': ({ none }) => {
    return { ...none, advice: 'Place a signal before those points for trains that come that way.' };
  },
  'points moved under a train': ({ model, document, trains, at, train, trainOf, none }) => {
    const under = model.motors
      .map((motor, i) => ({ motor, t: trains.findIndex((x, k) => x.placements[at[k]!]?.over.includes(i)), i }))
      .find(({ t, i }) => t >= 0 && model.present.turnouts[i]! >= 2);
    return under
      ? {
          says: `${under.motor.name} moves under ${train(under.t)}.`,
          why: 'No axle that a detector sees stands in the block of the points, though a part of the train still lies over them.',
          advice: `Fit resistor axles so that no part longer than the way over ${under.motor.name} is unseen, or cut the gap farther from its blades.`,
          fixes: resistorAxles(document, trainOf(under.t)),
        }
      : none;
  },
  'off the end of the track': ({ none }) => {
    return {
      ...none,
      advice: 'Keep the points that lead there locked while a train comes, or put a signal before them.',
    };
  },
  'rules never settle': ({ none }) => none,
  'no power for ever': ({ none }) => none,
};

/** Tells the causes of hazards in a layout, and what would prevent them, for `ProofRun.result`. */
export const causesIn =
  (document: LayoutDocument): Explain<Cause> =>
  (model, property, counterexample, moments) =>
    CAUSES[property](lookAt(document, model, counterexample, moments));

function passedAtStop({ counterexample, document, trains, last, none }: Look, hazard: HazardId): Cause {
  const deed = counterexample[counterexample.length - 1]?.deeds.find(({ late }) => late);
  const late = deed && document.trains.find((t) => t.id === trains[deed.index]!.id);
  if (!late) return none;
  const needs = fromMm(stoppingNeed(layoutSpeedMmPerS(late.topSpeedKmh, document.scale), late.brakingMmPerS2).totalMm);
  const kept = fromMm(STOP_SHORT_MM);
  return {
    says: last!,
    why:
      hazard === 'stop not announced in time'
        ? `${late.name} needs up to ${showLength(needs, document.shownUnit)} to stop, ${showLength(kept, document.shownUnit)} of which it keeps before the signal, and the signals before told it later than that.`
        : `It dropped when ${late.name} was nearer than it can stop: it needs up to ${showLength(needs, document.shownUnit)}, ${showLength(kept, document.shownUnit)} of which it keeps before a signal.`,
    advice:
      hazard === 'stop not announced in time'
        ? 'Make the blocks longer, run the train more slowly, or add an aspect that warns earlier.'
        : undefined,
    fixes: [],
  };
}

/** Whether some track that points or a crossing make foul lies in a block. */
const isFouled = ({ system: { partition } }: ProofModel, cause: string, block: number): boolean =>
  partition.graph.fouling.some(
    (pair) =>
      pair.cause === cause &&
      [...pair.a, ...pair.b].some(({ edge, from, to }) => blocksOn(partition, edge, from, to).includes(block)),
  );

/** From the last part that a detector sees to the tail, as the train runs now, in mm. */
function tailOf(document: LayoutDocument, model: ProofModel, t: number): number {
  const own = document.trains.find(({ id }) => id === model.trains[t]!.id)!;
  const consist = consistOf(document, own);
  const { turned } = model.trains[t]!.placements[model.present.at[t]!]!;
  return unseenOf(document, turned ? turnedRound(consist) : consist).tailMm;
}
