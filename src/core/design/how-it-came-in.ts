import { INFERRED_BY, resistorAxles, watchIt } from '../detection';
import type { Fix } from '../findings';
import { showLength, type TenthUm } from '../measure';
import { CHOOSABLE, names, OWN } from '../patterns';
import type { Moment, ProofModel } from '../proof';
import type { SignalReading } from '../signals';
import { asTyped, type Edit, type Facing, type LayoutDocument } from '../survey';

/** Why something could come about, and what would prevent it. */
export interface Why {
  why?: string;
  advice?: string;
  fixes: Fix<Edit>[];
}

/** A train, and the block that it is in. */
export interface InBlock {
  train: number;
  block: number;
}

/**
 * Why the later of two trains could come where the other was, into the same block or into one that it fouls: what it passed, what that showed, and
 * what the block of the other read then.
 */
export function howItCameIn(
  document: LayoutDocument,
  model: ProofModel,
  moments: readonly Moment[],
  pair: readonly [InBlock, InBlock],
): Why {
  const { partition, aspects } = model.system;
  const entries = pair.map((one) => ({ ...one, step: stepInto(model, moments, one) })) as [Entry, Entry];
  const [late, early] = entries[1].step > entries[0].step ? [entries[1], entries[0]] : entries;
  const { block } = late;
  const { name } = partition.blocks[block]!;
  const called = (train: number) => model.trains[train]!.name;
  if (late.step < 0) {
    const open = pair.map((one) => boundaryInto(model, moments[0]!, one)).find((into) => into && !into.signal);
    if (open) return noSignal(document, model, open);
    return {
      why: `Both ${called(early.train)} and ${called(late.train)} start there.`,
      advice: 'Give one of them another place to start.',
      fixes: [],
    };
  }
  const before = moments[late.step]!;
  if (isOffIn(model, before, late.train))
    return {
      why: `${called(late.train)} is set down by hand in ${name} while ${called(early.train)} is in the way.`,
      advice: 'No signal is asked by a hand: look before you set a train down.',
      fixes: [],
    };
  const into = boundaryInto(model, moments[late.step + 1]!, late);
  if (!into) return { fixes: [] };
  const { signal: reading } = into;
  if (!reading) return noSignal(document, model, into);
  const { signal } = reading;
  const aspect = aspects[valueIn(model, before, names.shows(signal))]!;
  if (aspect.stopsIn === 0 && !aspect.onSight)
    return {
      why: `${signal.name} showed ${aspect.id} before ${name}, and ${called(late.train)} passed it: it could no longer stop.`,
      advice: 'Look first at why it could not stop: the signal dropped before it, or was not announced in time.',
      fixes: [],
    };
  if (aspect.onSight)
    return {
      why: `${signal.name} lets trains into ${name} on sight: its driver has to see ${called(early.train)} in time.`,
      advice: 'Let that signal ask for the block to be free, or let trains in there one at a time.',
      fixes: [],
    };
  return letPast(document, model, before, early.block, reading.index, [early.train, late.train]);
}

/** Where a train has come into a block out of another, and the signal that stands there for it. */
interface Into extends InBlock {
  line: string;
  at: TenthUm;
  governs: Facing;
  signal: SignalReading | undefined;
}

/** The boundary by which a train that stands in a block has come into it; undefined where it stands in no other behind that. */
function boundaryInto(model: ProofModel, moment: Moment, { train, block }: InBlock): Into | undefined {
  const { partition, readings } = model.system;
  const { tape } = placedIn(model, moment, train)!;
  const nth = tape.findIndex(({ piece }, i) => i > 0 && partition.pieces[piece]!.block === block);
  const [from, own] = [tape[nth - 1], tape[nth]];
  if (!from || !own || partition.pieces[from.piece]!.block === block) return undefined;
  const { line, from: low, to: high } = partition.pieces[own.piece]!;
  const [at, governs] = own.exit === 1 ? [low, 'up' as const] : [high, 'down' as const];
  const signal = readings.find(
    ({ piece, exit, offBoundary }) => piece === from.piece && exit === from.exit && offBoundary === 0,
  );
  return { train, block, line, at, governs, signal };
}

function noSignal(document: LayoutDocument, model: ProofModel, { train, block, line, at, governs }: Into): Why {
  const where = `${showLength(at, document.shownUnit)} on ${document.lines.find(({ id }) => id === line)!.name}`;
  return {
    why: `No signal holds a train at ${where}, where ${model.trains[train]!.name} comes into ${model.system.partition.blocks[block]!.name}.`,
    fixes: [
      {
        says: `Place a signal at ${where}`,
        edit: { do: 'add signal', line, at: asTyped(at, document.shownUnit), governs },
      },
    ],
  };
}

/** Why a signal showed proceed into a block in which a train was. */
export function letPast(
  document: LayoutDocument,
  model: ProofModel,
  moment: Moment,
  block: number,
  signal: number,
  trains: readonly number[],
): Why {
  const { partition, readings } = model.system;
  const found = partition.blocks[block]!;
  const { name } = readings[signal]!.signal;
  if (valueIn(model, moment, names.occupied(found)) === 1)
    return {
      why: `${name} showed proceed though ${found.name} read occupied: ${worksBy(model, signal)}.`,
      advice: `Let ${name} ask for ${found.name} to be free.`,
      fixes: [],
    };
  const there = trains.filter((train) => placedIn(model, moment, train)?.blocks.includes(block));
  if (there.length === 0)
    return {
      why: `${name} showed proceed while nobody was in ${found.name} yet: both were let in.`,
      advice: 'Let one of the two signals ask for the other to be at stop.',
      fixes: [],
    };
  return unseenIn(document, model, moment, block, there);
}

/** Why a block read free with a train in it, and what makes that train seen. */
function unseenIn(
  document: LayoutDocument,
  { system, trains }: ProofModel,
  moment: Moment,
  block: number,
  there: readonly number[],
): Why {
  const { partition } = system;
  const found = partition.blocks[block]!;
  const { sensors } = partition.sections[found.section]!;
  const inferred = partition.inferred.get(block);
  if (sensors.length === 0 && inferred)
    return {
      why: `${found.name} is only ${INFERRED_BY[inferred.by]}: it read free while ${trains[there[0]!]!.name} stood in it.`,
      advice: 'Give the block a detector, or let people look before they say that it is free.',
      fixes: watchIt(document, partition, found, found.name),
    };
  if (sensors.length === 0)
    return {
      why: `No detector sees a train in ${found.name}.`,
      advice: 'Give the block a detector.',
      fixes: watchIt(document, partition, found, found.name),
    };
  const unnoticed = there.find((t) => {
    const { detected } = trains[t]!.placements[moment.at[t]!]!;
    return !detected.some((field) => partition.fields.all[field]!.section === found.section);
  });
  if (unnoticed === undefined)
    return {
      why: `${found.name} read free though its detector should have noticed ${trains[there[0]!]!.name}: its power was cut off, it missed something, or it had not reported yet.`,
      fixes: [],
    };
  const train = document.trains.find(({ id }) => id === trains[unnoticed]!.id)!;
  const fixes = resistorAxles(document, train);
  return {
    why: `${found.name} read free while ${train.name} stood in it: nothing of the part that stood there is noticed.`,
    advice:
      fixes.length > 0
        ? `Fit resistor axles, so that no part of ${train.name} stands in a block unseen.`
        : `Keep ${train.name} out of there, or let a block be freed by arrival: by a spot beyond it that notices any vehicle.`,
    fixes,
  };
}

/** By which ways of working a signal that has chosen some is cleared; or that a rule of somebody’s own clears it. */
function worksBy({ system }: ProofModel, index: number): string {
  const { signal } = system.readings[index]!;
  const own = system.program.declarations.some(
    ({ name, why }) => why?.pattern === OWN && (why.about === signal.id || name.split('.')[1] === signal.id),
  );
  if (own) return 'a rule of your own clears it';
  const chosen = CHOOSABLE.filter(({ id }) => signal.patterns?.includes(id));
  return chosen.length > 0 ? `it works so: ${chosen.map(({ says }) => says).join('; ')}` : 'its rules let it';
}

type Entry = InBlock & { step: number };

/** The step by which a train came into a block last, by its number; -1 where it was there from the start. */
function stepInto(model: ProofModel, moments: readonly Moment[], { train, block }: InBlock): number {
  for (let i = moments.length - 2; i >= 0; i--) {
    const [was, is] = [moments[i]!, moments[i + 1]!].map((moment) =>
      placedIn(model, moment, train)?.blocks.includes(block),
    );
    if (is && !was) return i;
  }
  return -1;
}

const isOffIn = (model: ProofModel, { at }: Moment, train: number): boolean =>
  at[train] === model.trains[train]!.placements.length;
const placedIn = (model: ProofModel, moment: Moment, train: number) =>
  isOffIn(model, moment, train) ? undefined : model.trains[train]!.placements[moment.at[train]!]!;
const valueIn = ({ rules }: ProofModel, { ruleState }: Moment, name: string): number =>
  rules.valuesIn(ruleState)[rules.wiring.compiled.slots.get(name)!]!;
