import { ADMISSIONS } from '../kinds';
import { and, type Expr, name, not, or } from '../logic';
import type { SignalReading } from '../signals';
import type { Area } from '../survey';
import { byScheme } from './by-scheme';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import { pointsLie, type Scheme } from './scheme';

/** A signal that was cleared by a button falls back after so long; common practice, no source. */
export const GIVEN_FOR_MS = 15_000;

/** Where somebody lets trains in: the post, with what its signals show while nobody is there. */
export interface Post {
  id: string;
  name: string;
  whenEmpty: 'caution' | 'stop';
  readings: SignalReading[];
}

/** The posts of a layout: of each area whose operator lets trains in, and one for all signals that stand before none. */
export const postsOf = byScheme(({ document, partition, readings }: Scheme): Post[] => {
  const posts = new Map<string, Post>();
  for (const reading of readings) {
    if (!isChosen(authority, reading.signal)) continue;
    const area = areaBeyond(document.areas, partition, reading);
    const { id, name: called, whenEmpty = 'stop' } = area ?? { id: 'post', name: '' };
    const post = posts.get(id) ?? { id, name: called, whenEmpty, readings: [] };
    post.readings.push(reading);
    if (!area) post.name = post.readings.map(({ signal }) => signal.name).join(', ');
    posts.set(id, post);
  }
  return [...posts.values()];
});

/** The area with a post into which the signal lets trains, or in which it stands. */
function areaBeyond(areas: readonly Area[], partition: Scheme['partition'], reading: SignalReading): Area | undefined {
  const withPost = areas.filter(({ admits }) => admits && ADMISSIONS[admits].post);
  const first = reading.ways.flatMap(({ blocks }) => blocks.slice(0, 1).map(({ piece }) => partition.pieces[piece]!));
  const covers = ({ line, from, to }: Area, at: { line: string; from: number; to: number }) =>
    at.line === line && at.to > from.tenthUm && at.from < to.tenthUm;
  const { line, at } = reading.signal;
  return (
    withPost.find((area) => first.some((piece) => covers(area, piece))) ??
    withPost.find((area) => covers(area, { line, from: at.tenthUm - 1, to: at.tenthUm + 1 }))
  );
}
const postOf = (scheme: Scheme, { index }: SignalReading): Post =>
  postsOf(scheme).find(({ readings }) => readings.some((reading) => reading.index === index))!;

/**
 * Authority: no sensor lets trains on, but somebody at a post does, for one train at a time. A button clears the signal; it falls back
 * after a set time, or once the train has been noticed beyond it. With the post empty it shows what was chosen for that. It lets trains
 * go at its most restrictive aspect only: nobody has looked whether the track beyond is free.
 */
export const authority: Pattern = {
  id: 'authority',
  chosen: {
    at: 'signal',
    says: 'Cleared by somebody at a post, for one train at a time; no sensor is asked',
    makes: 'aspect',
    byPost: true,
  },
  general(scheme, book) {
    for (const post of postsOf(scheme))
      book.input(names.manned(post), 'bool', {
        about: post.readings[0]!.signal.id,
        yes: `Somebody is at the post of ${post.name}`,
        no: `Nobody is at the post of ${post.name}`,
      });
  },
  signal(scheme, reading, book) {
    const { signal, ways } = reading;
    if (!isChosen(authority, signal)) return;
    const manned = name(names.manned(postOf(scheme, reading)));
    const pressed = name(names.give(signal));
    const beyond = [...new Set(ways.flatMap(({ blocks }) => blocks.slice(0, 1).map(({ block }) => block)))];
    const watched = beyond
      .map((block) => scheme.partition.blocks[block]!)
      .filter(
        ({ section, index }) =>
          scheme.partition.sections[section]!.sensors.length > 0 || scheme.partition.told.has(index),
      );
    const passed: Expr = { op: 'R_TRIG', in: or(...watched.map((block) => name(names.occupied(block)))), starts: true };
    book.input(names.give(signal), 'bool', {
      about: signal.id,
      yes: `Somebody presses the button of ${signal.name}`,
      no: `Nobody presses the button of ${signal.name}`,
    });
    book.rule(
      names.givenFor(signal),
      'bool',
      { op: 'TP', in: pressed, ms: GIVEN_FOR_MS, starts: false },
      {
        about: signal.id,
        yes: `The button of ${signal.name} was pressed a moment ago`,
        no: `The button of ${signal.name} has not been pressed for a while`,
      },
    );
    book.rule(
      names.given(signal),
      'bool',
      {
        op: 'RS',
        set: and(manned, { op: 'R_TRIG', in: pressed, starts: true }),
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
  instead(scheme, { reading, way }) {
    const { signal } = reading;
    if (!isChosen(authority, signal) || way.blocks.length === 0) return undefined;
    const post = postOf(scheme, reading);
    const manned = name(names.manned(post));
    const given = name(names.given(signal));
    const open = post.whenEmpty === 'caution' ? or(given, not(manned)) : given;
    const empty = post.whenEmpty === 'caution' ? ', or nobody is at the post' : '';
    return [
      { expr: and(...pointsLie(scheme, way)), says: 'the points lie for the way' },
      { expr: open, says: `the operator of ${post.name} has cleared it for this train${empty}` },
    ];
  },
  expects: (_, { signal }) =>
    isChosen(authority, signal)
      ? [{ expr: { op: 'true' }, says: 'nobody has looked whether the track beyond is free' }]
      : [],
};
