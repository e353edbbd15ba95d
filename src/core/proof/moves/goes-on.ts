import { countedOn } from '../model/committed';
import type { ProofModel } from '../model/model';
import type { Advance } from '../model/placement';
import { MOVING } from '../model/rule-memory';
import type { MoveKind } from './kind';

/** How a step ends that changes nothing for anybody; a counterexample can be told without it. */
export const UNNOTICED = 'goes on a little.';

const fromOf = (model: ProofModel, train: number) => model.trains[train]!.placements[model.present.at[train]!]!;

/** The blocks of the sections in which a train is seen. */
const seenIn = ({ system }: ProofModel, detected: number[]): number[] =>
  detected
    .map((field) => system.partition.fields.all[field]!)
    .flatMap(({ section, sensors, blocks }) => (section === undefined || sensors.length === 0 ? [] : blocks));

/** Sensors that do not notice the train, though they should. */
function missedBy({ system }: ProofModel, { misses = [] }: Advance) {
  const ids = misses.map((field) => system.partition.fields.all[field]!.sensors[0]);
  return system.sensors.filter(({ id }) => ids.includes(id));
}

/** So far of a stretch is still within it. */
const NEARLY = 0.97;

/** A train goes on to where something happens next. */
export const goesOn: MoveKind = {
  movesOn: true,
  pairs: true,
  list(model, add) {
    for (let t = 0; t < model.trains.length; t++) {
      if (model.isOff(t)) continue;
      const { advances } = fromOf(model, t);
      for (let way = 0; way < advances.length; way++) if (model.mayAdvance(t, way)) add(t, way);
    }
  },
  take: (model, train, way) => model.advance(train, way),
  getsSomewhere(model, train, way) {
    const from = fromOf(model, train);
    const { to, passes, turnouts, rests } = from.advances[way]!;
    if (rests) return false;
    if (passes.length + turnouts.length > 0) return true;
    return model.trains[train]!.placements[to]!.detected.some((field) => !from.detected.includes(field));
  },
  tell(model, index, way) {
    const { system, present } = model;
    const blockNames = (blocks: number[]) => blocks.map((b) => system.partition.blocks[b]!.name).join(' and ');
    const signalName = (signal: number) => system.readings[signal]!.signal.name;
    const { name, placements } = model.trains[index]!;
    const from = fromOf(model, index);
    const advance = from.advances[way]!;
    if (advance.offTheEnd) return `${name} runs off the end of the track.`;
    if (advance.rests && !advance.seen) return `${name} ${UNNOTICED}`;
    if (advance.rests)
      return advance.rests === 'begins'
        ? `${name} stands with the throttle closed: nothing that needs current notices it.`
        : `${name} has current again.`;
    const into = placements[advance.to]!;
    const parts: string[] = [];
    for (const thing of advance.passes) {
      const { signal } = from.before[thing]!;
      const aspect = model.aspect(signal);
      const late = countedOn(present.committed[index]!, thing)
        ? 'though it has just gone to stop: too late to brake'
        : 'at stop: nothing had told it in time';
      parts.push(`passes ${signalName(signal)} ${aspect.stopsIn === 0 ? late : `at ${aspect.id}`}`);
    }
    for (const { motor, position } of advance.turnouts)
      if (present.turnouts[motor] !== position)
        parts.push(`runs onto ${system.partition.graph.motors[motor]!.name}, which is set against it`);
    const entered = into.blocks.filter((b) => !from.blocks.includes(b));
    const left = from.blocks.filter((b) => !into.blocks.includes(b));
    if (entered.length > 0) parts.push(`comes into ${blockNames(entered)}`);
    if (left.length > 0) parts.push(`leaves ${blockNames(left)}`);
    const [was, now] = [seenIn(model, from.detected), seenIn(model, into.detected)];
    const hidden = was.filter((b) => !now.includes(b) && into.blocks.includes(b));
    const missed = missedBy(model, advance);
    if (missed.length > 0) parts.push(`is missed by ${missed.map((one) => one.name).join(' and ')}`);
    if (hidden.length > 0) parts.push(`is no longer seen in ${blockNames(hidden)}, though a part of it is still there`);
    const known = from.before.map(({ signal }) => signal);
    const [near] = into.before.filter(({ signal }) => signal >= 0 && !known.includes(signal));
    if (parts.length === 0)
      parts.push(near ? `comes within braking distance of ${signalName(near.signal)}` : UNNOTICED.slice(0, -1));
    return `${name} ${parts.join(', ')}.`;
  },
  course(model, train, way) {
    const from = fromOf(model, train);
    const { runMm, passes, to, seen, turnouts, ...advance } = from.advances[way]!;
    const rests = advance.rests && !seen ? 'starts' : advance.rests;
    const misses = missedBy(model, from.advances[way]!).map(({ id }) => id);
    const late = passes.map((thing) => from.before[thing]!.signal).find((signal) => model.isAtStop(signal));
    const movingUnder = turnouts.find(({ motor }) => model.present.turnouts[motor]! >= MOVING)?.motor;
    return { runMm, longMm: model.trains[train]!.longMm(to), late, movingUnder, rests, misses };
  },
  steer({ model, counterexample, stretches, waitsAt, runsOn, before, tell, rolling }, deed, nth) {
    const { kind, index, runMm, longMm } = deed;
    const train = rolling(index);
    if (deed.rests === 'starts') return () => true;
    if (deed.rests === 'begins') {
      tell({ kind: 'run', train: model.trains[index]!.id, on: false });
      return () => train.speed === 0;
    }
    if (deed.rests === 'ends') {
      /** With current again it moves, however slowly: it draws up within its stretch. */
      const { from, longMm: room } = stretches.get(index)!;
      tell({ kind: 'draw up', train: model.trains[index]!.id, mm: Math.max(1, from + NEARLY * room - train.head) });
      return () => train.speed > 0 || train.stranded;
    }
    for (const sensor of deed.misses ?? []) tell({ kind: 'fault', sensor, what: 'miss' });
    const begins = stretches.get(index)!.from + runMm;
    stretches.set(index, { from: begins, longMm });
    const goal = begins + waitsAt * longMm;
    /** One that will pass a signal at stop must not stop before. */
    let beyond = 0;
    const waits = before?.train === index && nth < before.step;
    for (const { deeds } of waits ? [] : counterexample.slice(nth + 1)) {
      const own = deeds.find((d) => d.kind === kind && d.index === index);
      if (own && own.late === undefined && !runsOn) break;
      if (own) beyond += own.runMm + own.longMm;
    }
    tell({ kind: 'draw up', train: model.trains[index]!.id, mm: Math.max(1, goal + beyond - train.head) });
    return () => train.head >= goal - 1 || !train.running || train.stranded;
  },
};
