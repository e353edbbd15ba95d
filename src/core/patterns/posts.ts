import { ADMISSIONS, type EmptyPostId } from '../kinds';
import { and, type Expr, name, not, or, previous } from '../logic';
import { conflictsOf, type SignalReading } from '../signals';
import type { Area, Signal } from '../survey';
import { byScheme } from './by-scheme';
import * as names from './names';
import type { Pattern, PatternOption } from './pattern';
import type { Scheme } from './scheme';
import { optionOf } from './setting-of';

/** A signal that was cleared by a button falls back after so long; common practice, no source. */
export const GIVEN_FOR_MS = 15_000;

const ID = 'post';
const GIVEN: PatternOption = {
  pattern: ID,
  option: 'givenMs',
  at: 'signal',
  says: 'Cleared from its post it falls back after, in seconds',
  least: 1000,
  most: 600_000,
  does: (scheme, id) => postsOf(scheme).some(({ readings }) => readings.some(({ signal }) => signal.id === id)),
  usual: () => GIVEN_FOR_MS,
};

/** Where somebody lets trains in: the post, with what its signals show while nobody is there. */
export interface Post {
  id: string;
  name: string;
  whenEmpty: EmptyPostId;
  readings: SignalReading[];
}

/** The patterns by which an operator at a post clears signals: in place of all sensors, or past a stop that they ask for. */
export const [AUTHORITY, PERMISSION] = ['authority', 'by permission'];
const isWorked = ({ patterns = [] }: Signal): boolean => patterns.includes(AUTHORITY) || patterns.includes(PERMISSION);

/** The posts of a layout: of each area whose operator lets trains in, and one for all signals that stand before none. Areas of one name are one, on several lines. */
export const postsOf = byScheme(({ document, partition, readings }: Scheme): Post[] => {
  const posts = new Map<string, Post>();
  for (const reading of readings) {
    if (!isWorked(reading.signal)) continue;
    const area = areaBeyond(document.areas, partition, reading);
    const parts = area ? document.areas.filter(({ name, admits }) => name === area.name && hasPost(admits)) : [];
    const { id, name: called } = parts[0] ?? { id: 'post', name: '' };
    const clears = parts.length > 0 && parts.every((part) => part.whenEmpty === 'caution');
    const whenEmpty = clears ? 'caution' : 'stop';
    const post = posts.get(id) ?? { id, name: called, whenEmpty, readings: [] };
    post.readings.push(reading);
    if (!area) post.name = post.readings.map(({ signal }) => signal.name).join(', ');
    posts.set(id, post);
  }
  return [...posts.values()];
});

const hasPost = (admits: Area['admits']): boolean => admits !== undefined && ADMISSIONS[admits].post === true;

/** The area with a post into which the signal lets trains, or in which it stands. */
function areaBeyond(areas: readonly Area[], partition: Scheme['partition'], reading: SignalReading): Area | undefined {
  const withPost = areas.filter(({ admits }) => hasPost(admits));
  const first = reading.routes.flatMap(({ blocks }) => blocks.slice(0, 1).map(({ piece }) => partition.pieces[piece]!));
  const covers = ({ line, from, to }: Area, at: { line: string; from: number; to: number }) =>
    at.line === line && at.to > from.tenthUm && at.from < to.tenthUm;
  const { line, at } = reading.signal;
  return (
    withPost.find((area) => first.some((piece) => covers(area, piece))) ??
    withPost.find((area) => covers(area, { line, from: at.tenthUm - 1, to: at.tenthUm + 1 }))
  );
}
export const postOf = (scheme: Scheme, { index }: SignalReading): Post =>
  postsOf(scheme).find(({ readings }) => readings.some((reading) => reading.index === index))!;

/** The signals that would let trains into a block together with this one. */
export function rivalsOf({ readings }: Pick<Scheme, 'readings'>, { index }: SignalReading): SignalReading[] {
  const rivals = conflictsOf(readings).flatMap(({ one, two }) => (one === index ? [two] : two === index ? [one] : []));
  return [...new Set(rivals)].sort((a, b) => a - b).map((rival) => readings[rival]!);
}

/** One that conflicts and was cleared before goes first; of several pressed at once, the one that is listed first. */
const goneFirst = (scheme: Scheme, reading: SignalReading): Expr[] =>
  rivalsOf(scheme, reading).flatMap(({ signal, index }) => {
    const cleared = not(previous(names.proceed(signal)));
    if (!isWorked(signal)) return [cleared];
    const given = [cleared, not(previous(names.given(signal)))];
    return index < reading.index ? [...given, not(name(names.give(signal)))] : given;
  });

/**
 * What somebody at a post does, whatever it is for: takes and leaves it, and presses the button of a signal for one train. That falls back
 * after a set time, or once the train has been noticed beyond it. Nothing that conflicts is cleared before, and nothing while it lasts.
 */
export const post: Pattern = {
  id: ID,
  options: [GIVEN],
  general(scheme, _, book) {
    for (const [index, post] of postsOf(scheme).entries())
      book.input(['post', index], names.manned(post), 'bool', {
        about: post.readings[0]!.signal.id,
        yes: `Somebody is at the post of ${post.name}`,
        no: `Nobody is at the post of ${post.name}`,
      });
  },
  proceed: (scheme, { reading }) =>
    (postsOf(scheme).length > 0 ? rivalsOf(scheme, reading) : [])
      .filter(({ signal }) => isWorked(signal))
      .map(({ signal }) => ({
        expr: not(name(names.given(signal))),
        says: `${signal.name}, which conflicts, is not cleared from a post`,
      })),
  signal(scheme, reading, book) {
    const { signal, routes } = reading;
    if (!isWorked(signal)) return;
    const manned = name(names.manned(postOf(scheme, reading)));
    const pressed = name(names.give(signal));
    const beyond = [...new Set(routes.flatMap(({ blocks }) => blocks.slice(0, 1).map(({ block }) => block)))];
    const watched = beyond
      .map((block) => scheme.partition.blocks[block]!)
      .filter(
        ({ section, index }) =>
          scheme.partition.sections[section]!.sensors.length > 0 || scheme.partition.inferred.has(index),
      );
    const passed: Expr = { op: 'R_TRIG', in: or(...watched.map((block) => name(names.occupied(block)))), starts: true };
    const stopped = signal.patterns!.includes(AUTHORITY) ? [] : [not(previous(names.proceed(signal)))];
    book.input(['clear button', reading.index], names.give(signal), 'bool', {
      about: signal.id,
      yes: `Somebody presses the button of ${signal.name}`,
      no: `Nobody presses the button of ${signal.name}`,
    });
    book.rule(
      names.givenFor(signal),
      'bool',
      { op: 'TP', in: pressed, ms: optionOf(scheme, GIVEN, signal), starts: false },
      {
        about: signal.id,
        yes: `The button of ${signal.name} was pressed a moment ago`,
        no: `The button of ${signal.name} has not been pressed for a while`,
      },
    );
    book.flag(
      ['given', reading.index],
      names.given(signal),
      'bool',
      {
        op: 'RS',
        set: and(manned, { op: 'R_TRIG', in: pressed, starts: true }, ...stopped, ...goneFirst(scheme, reading)),
        reset: or(not(manned), not(name(names.givenFor(signal))), ...(watched.length > 0 ? [passed] : [])),
        starts: false,
      },
      {
        about: signal.id,
        fact: 'always',
        yes: `${signal.name} was cleared for one train`,
        no: `${signal.name} was not cleared for a train`,
      },
    );
  },
};
