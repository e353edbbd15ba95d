import { fields } from '../../survey';
import type { Rehearsal } from '../rehearsal';
import { commandKind } from './kind';

const signalOf = (run: Rehearsal, id: string): number =>
  run.system.readings.findIndex(({ signal }) => signal.id === id);
const called = (run: Rehearsal, id: string): string => run.system.readings[signalOf(run, id)]?.signal.name ?? id;
const NO_POST = 'There is no post that works it.';

export const hold = commandKind({
  schema: fields.record({ signal: fields.text(60), on: fields.yesOrNo() }),
  carryOut(run, { signal, on }) {
    const input = run.system.terminals.find('hold', signalOf(run, signal));
    if (!input) return 'That signal is no longer there.';
    run.controller.set(input.slot, on ? 1 : 0);
    return undefined;
  },
  says: (run, { signal, on }) =>
    on ? `Somebody holds ${called(run, signal)} at stop` : `${called(run, signal)} is no longer held at stop`,
});

/** A post is taken by one of the people, counted from 1, who relieves whoever is there; or it is left. */
export const takePost = commandKind({
  schema: fields.record({
    post: fields.text(60),
    on: fields.yesOrNo(),
    by: fields.count(1, 50).optional().default(undefined),
  }),
  carryOut(run, { post, on, by = 1 }) {
    const input = run.system.terminals.find(
      'post',
      run.system.posts.findIndex(({ id }) => id === post),
    );
    if (!input) return NO_POST;
    if (by > run.system.people) return `Only ${run.system.people} run this layout.`;
    if (on) run.atPost.set(post, by);
    else run.atPost.delete(post);
    run.controller.set(input.slot, on ? 1 : 0);
    return undefined;
  },
  says(run, { post, on }) {
    const name = run.system.posts.find(({ id }) => id === post)?.name ?? post;
    return on ? `Somebody takes the post of ${name}` : `The post of ${name} is left`;
  },
});

/** The button of a signal at a post is pressed, or let go. */
export const clearOnce = commandKind({
  schema: fields.record({ signal: fields.text(60), on: fields.yesOrNo() }),
  carryOut(run, { signal, on }) {
    const index = signalOf(run, signal);
    const input = run.system.terminals.find('clear button', index);
    if (!input) return NO_POST;
    run.workButton(input.slot, on);
    if (on) run.press(index);
    return undefined;
  },
  says: (run, { signal, on }) => `The button of ${called(run, signal)} is ${on ? 'pressed, for one train' : 'let go'}`,
});

/** A run over points that are held until arrival is given up. Refused while a train is detected near them. */
export const giveUp = commandKind({
  /** A signal, and the id of one of its routes. */
  schema: fields.record({ signal: fields.text(60), route: fields.text(120) }),
  carryOut(run, { signal, route }) {
    const { system, controller } = run;
    const of = signalOf(run, signal);
    const release = system.releases.find((one) => one.signal === of && one.route === route);
    if (!release) return 'Nothing is held until a train has arrived there.';
    if (!controller.isOn('under way', of, route)) return `No train is under way from ${called(run, signal)}.`;
    const seen = release.blocks.find((block) => controller.isOn('occupied', block));
    if (seen !== undefined) return `A train is detected in ${system.partition.blocks[seen]!.name}.`;
    controller.pulse(release.slot);
    return undefined;
  },
  says: (run, { signal, route }) =>
    `Somebody looks, and gives up the run from ${called(run, signal)} to ${run.system.releases.find((one) => one.signal === signalOf(run, signal) && one.route === route)?.to ?? route}`,
});

const NOT_SET = 'Its routes are not set by people.';

/** Somebody sets a route. While one that conflicts is set it waits, if that was said; else it is refused. */
export const setRoute = commandKind({
  /** A signal, and the id of one of its routes. */
  schema: fields.record({
    signal: fields.text(60),
    route: fields.text(120),
    waits: fields.yesOrNo().optional().default(undefined),
  }),
  carryOut(run, { signal, route, waits }) {
    const { commanded, readings } = run.system;
    const { values } = run.controller;
    const asked = commanded.find((one) => one.signal === signalOf(run, signal) && one.route === route);
    if (!asked) return NOT_SET;
    const rivals = asked.rivals.map((nth) => commanded[nth]!);
    const rival = rivals.find(({ isSet }) => values[isSet] === 1);
    if (waits && (rival || rivals.some((one) => run.queue.all.includes(one)))) {
      run.queue.add(asked);
      return undefined;
    }
    if (rival)
      return `${called(run, signal)} to ${asked.to} is not set: ${readings[rival.signal]!.signal.name} to ${rival.to} is set, and they conflict.`;
    run.controller.pulse(asked.button);
    return undefined;
  },
  says(run, { signal, route, waits }) {
    const { commanded } = run.system;
    const to = commanded.find((one) => one.signal === signalOf(run, signal) && one.route === route)?.to ?? route;
    return `Somebody sets ${called(run, signal)} to ${to}${waits ? ', as soon as it can be' : ''}`;
  },
});

/** Whatever is set from a signal, or waits for that, is cancelled. */
export const cancelRoutes = commandKind({
  schema: fields.record({ signal: fields.text(60) }),
  carryOut(run, { signal }) {
    const found = run.system.commanded.find((one) => one.signal === signalOf(run, signal));
    if (!found) return NOT_SET;
    if (found.byTrainsUnless !== undefined && run.controller.values[found.byTrainsUnless] !== 1)
      return `A train that waits sets it again at once. First switch off automatic working of ${called(run, signal)}.`;
    run.queue.cancel(found.signal);
    run.controller.pulse(found.cancel);
    return undefined;
  },
  says: (run, { signal }) => `Somebody cancels what is set from ${called(run, signal)}`,
});
