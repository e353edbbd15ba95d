import { blockOf } from '../../detection';
import type { RollingTrain } from '../../plant';
import { fields } from '../../survey';
import type { Rehearsal } from '../rehearsal';
import { commandKind } from './kind';

const WHY_NOT_TURN_BACK = {
  moving: 'is still moving. Halt it first.',
  'in several blocks':
    'stands in more than one block. It can turn back only within one, behind the signal that guards the way back.',
  'the line is run one way': 'cannot turn back here: its line is run in one direction only, as Survey says.',
  'no signal guards the way back':
    'cannot turn back here: no signal guards the way back. Place one, or turn it back at the end of a line.',
};
/** Longer than any layout, in mm. */
const FARTHEST_MM = 1e7;

const trainOf = (run: Rehearsal, id: string): number => run.plant.trains.findIndex(({ figures }) => figures.id === id);
const called = (run: Rehearsal, id: string): string => run.plant.trains[trainOf(run, id)]?.figures.name ?? id;

/** Does something with a train that stands on the track, or says why there is none. */
function onTrack(
  run: Rehearsal,
  id: string,
  deed: (train: RollingTrain, index: number) => string | undefined,
): string | undefined {
  const index = trainOf(run, id);
  const train = run.plant.trains[index];
  if (!train) return 'That train is not on the track.';
  if (train.off) return `${train.figures.name} is not on the track. Set it down first.`;
  return deed(train, index);
}

export const letRun = commandKind({
  schema: fields.record({ train: fields.text(60), on: fields.yesOrNo() }),
  carryOut: (run, { train: id, on }) =>
    onTrack(run, id, (train, index) => {
      if (on) train.stranded = false;
      if (on && run.orders.of(index)) run.orders.begin(index);
      else train.running = on;
      if (!run.orders.of(index)) train.goalAt = undefined;
      return undefined;
    }),
  says: (run, { train, on }) => `${called(run, train)} is told to ${on ? 'go' : 'halt'}`,
});

/** Goes to a block, by its id, with the turnouts on its way thrown as it comes to them. */
export const send = commandKind({
  schema: fields.record({ train: fields.text(60), block: fields.text(60) }),
  carryOut: (run, { train, block }) => onTrack(run, train, (_, index) => run.orders.give(index, block)),
  says(run, { train, block }) {
    const name = blockOf(run.system.partition, block)?.name ?? block;
    return `${called(run, train)} is sent to ${name}`;
  },
});

/** Takes back where it was sent; it waits. */
export const takeBack = commandKind({
  schema: fields.record({ train: fields.text(60) }),
  carryOut: (run, { train: id }) =>
    onTrack(run, id, (train, index) => {
      if (!run.orders.of(index)) return `${train.figures.name} has no order to take back.`;
      run.orders.drop(index);
      train.running = false;
      return undefined;
    }),
  says: (run, { train }) => `The order of ${called(run, train)} is taken back`,
});

/** Runs on by a distance, as signals allow, and stops there. */
export const drawUp = commandKind({
  schema: fields.record({ train: fields.text(60), mm: fields.amount(0, FARTHEST_MM) }),
  carryOut: (run, { train: id, mm }) =>
    onTrack(run, id, (train, index) => {
      run.orders.drop(index);
      train.goalAt = train.head + mm;
      train.running = true;
      return undefined;
    }),
  says: (run, { train }) => `${called(run, train)} is told to draw up`,
});

export const turnBack = commandKind({
  schema: fields.record({ train: fields.text(60) }),
  carryOut: (run, { train: id }) =>
    onTrack(run, id, (train, index) => {
      const problem = run.plant.turnBack(index);
      if (problem) return `${train.figures.name} ${WHY_NOT_TURN_BACK[problem]}`;
      run.orders.turned(index);
      run.tellDirection(index);
      return undefined;
    }),
  says: (run, { train }) => `${called(run, train)} turns back`,
});

/** By hand, off the track; */
export const liftOff = commandKind({
  schema: fields.record({ train: fields.text(60) }),
  carryOut: (run, { train }) =>
    onTrack(run, train, (_, index) => {
      run.orders.drop(index);
      run.plant.liftOff(index);
      return undefined;
    }),
  says: (run, { train }) => `Somebody lifts ${called(run, train)} off the track`,
});

/** and back where it began. */
export const setDown = commandKind({
  schema: fields.record({ train: fields.text(60) }),
  carryOut(run, { train: id }) {
    const index = trainOf(run, id);
    const train = run.plant.trains[index];
    if (!train) return 'That train is not on the track.';
    const { name } = train.figures;
    if (!train.off) return `${name} stands on the track.`;
    const other = run.plant.setDown(index);
    if (other !== undefined)
      return `${name} cannot be set down where it began: ${run.plant.trains[other]!.figures.name} stands there.`;
    run.tellPutDown(index);
    return undefined;
  },
  says: (run, { train }) => `Somebody sets ${called(run, train)} down where it began`,
});
