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
    run.controller.set(input.slot, on ? 1 : 0);
    if (on) run.press(index);
    return undefined;
  },
  says: (run, { signal, on }) => `The button of ${called(run, signal)} is ${on ? 'pressed, for one train' : 'let go'}`,
});
