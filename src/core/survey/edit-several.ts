import { showLength, type TenthUm } from '../measure';
import { asItWas, thingOf } from './draft';
import { named } from './free-names';
import { LIST_NAMES, LISTS, type ListName, type Thing, thingsOf } from './lists';
import type { FeatureOf } from './lists/features';
import { partAt } from './lists/references';
import { asTyped, freshId } from './new-document';
import { spanOf } from './place-of';
import { refuse } from './refused';
import { remove } from './remove';
import { callThing } from './say-thing';
import type { LayoutDocument } from './schema';
import { LONGEST_NAME } from './schema-parts';

/** Only what things of such a kind have. */
export type FeatureChange = Partial<
  Pick<FeatureOf<'gap'>, 'rail'> &
    Pick<FeatureOf<'liftOut'>, 'guarded'> &
    Pick<FeatureOf<'feeder'>, 'booster' | 'reverses'> &
    Pick<FeatureOf<'curve'>, 'radius' | 'to'> &
    Pick<FeatureOf<'gradient'>, 'percent'> &
    Pick<FeatureOf<'taped'>, 'taped'> &
    Pick<FeatureOf<'tapedAcross'>, 'far'>
>;

/** What can be done to several things at once, as one step. */
export type SeveralEdit =
  | { do: 'delete all'; ids: readonly string[] }
  /** Along their lines, below zero towards their starts. Signals that stand at a gap or block mark go with it. */
  | { do: 'move all'; ids: readonly string[]; by: TenthUm }
  | { do: 'fix all'; ids: readonly string[]; certainty: 'tentative' | 'fixed'; on?: string }
  /** What else is known of things on a line, the same for all of them. */
  | { do: 'change features'; ids: readonly string[]; change: FeatureChange }
  /** From which booster feeders are led, by its name: one that is there, a new one, or, without a name, none. */
  | { do: 'lead feeders'; ids: readonly string[]; from: string }
  /** In order along the lines: a word and a number that counts up. */
  | { do: 'renumber'; ids: readonly string[]; word: string; from: number };

/** Does it to the draft; what was done, in words. */
export function editSeveral(document: LayoutDocument, edit: SeveralEdit): string {
  switch (edit.do) {
    case 'delete all':
      return remove(document, edit.ids);
    case 'move all': {
      const chosen = chosenOf(document, withTheirSignals(asItWas(document), edit.ids));
      for (const { list, thing } of chosen) shift(document, list, thing, edit.by);
      return `Move ${edit.ids.length} things by ${edit.by < 0 ? '−' : ''}${showLength(Math.abs(edit.by), document.shownUnit)}`;
    }
    case 'fix all':
      for (const { thing } of chosenOf(document, edit.ids)) {
        thing.certainty = edit.certainty;
        thing.fixedOn = edit.certainty === 'fixed' ? edit.on : undefined;
      }
      return `Mark ${edit.ids.length} things as ${edit.certainty}`;
    case 'change features':
      return changeFeatures(document, edit.ids, edit.change);
    case 'lead feeders': {
      const booster = edit.from.trim() === '' ? undefined : boosterOf(document, edit.from);
      changeFeatures(document, edit.ids, { booster });
      return booster === undefined ? 'Lead feeders from no booster' : `Lead feeders from ${edit.from.trim()}`;
    }
    case 'renumber': {
      const word = named(edit.word, 12, 'Say what their names begin with: S.');
      const before = asItWas(document);
      const lineOrder = new Map(before.lines.map(({ id }, order) => [id, order]));
      const placed = chosenOf(document, edit.ids).map((one) => ({ ...one, span: spanOf(before, one.thing.id)! }));
      placed.sort((a, b) => lineOrder.get(a.span.line)! - lineOrder.get(b.span.line)! || a.span.from - b.span.from);
      const taken = new Set(
        [...before.turnouts, ...before.features, ...before.sensors, ...before.crossings].flatMap((one) =>
          'name' in one && !edit.ids.includes(one.id) ? [one.name] : [],
        ),
      );
      placed.forEach(({ list, thing }, i) => {
        const longest = LISTS[list].longestName;
        if (!longest || typeof thing.name !== 'string') refuse('Only things with names can be numbered.');
        const name = named(`${word}${edit.from + i}`, longest!, 'Say what their names begin with: S.');
        if (taken.has(name)) refuse(`The name ${name} is taken. Begin with another word or number.`);
        thing.name = name;
      });
      return `Number ${edit.ids.length} things from ${word}${edit.from}`;
    }
  }
}

function changeFeatures(document: LayoutDocument, ids: readonly string[], change: FeatureChange): string {
  const features = ids.map((id) => thingOf(document, 'features', id) ?? refuse('Not all of them are there any more.'));
  const [first] = features;
  if (!first) return refuse('It is no longer there.');
  if (change.booster !== undefined) named(change.booster, LONGEST_NAME.thing, 'A booster needs a name.');
  for (const feature of features) Object.assign(feature, change);
  const before = asItWas(document).features.find(({ id }) => id === first.id)!;
  return features.length === 1
    ? `Change ${callThing('features', before, document.shownUnit).toLowerCase()}`
    : `Change ${features.length} things`;
}

/** Things that can be placed, by id, to be changed; refused when one is gone or is none of these. */
function chosenOf(document: LayoutDocument, ids: readonly string[]): { list: ListName; thing: Thing }[] {
  const wanted = new Set(ids);
  const chosen = LIST_NAMES.flatMap((list) =>
    thingsOf(asItWas(document), list).flatMap(({ id, certainty }, at) =>
      wanted.has(id) && certainty !== undefined ? [{ list, thing: thingsOf(document, list)[at]! }] : [],
    ),
  );
  if (chosen.length < wanted.size) refuse('Not all of them are there any more, or can be placed.');
  return chosen;
}

function withTheirSignals(document: LayoutDocument, ids: readonly string[]): string[] {
  const wanted = new Set(ids);
  const cuts = document.features.filter(({ id, kind }) => wanted.has(id) && (kind === 'gap' || kind === 'mark'));
  const at = new Set(cuts.map((cut) => `${cut.line} ${cut.at.tenthUm}`));
  for (const { id, kind, line, at: place } of document.features)
    if (kind === 'signal' && at.has(`${line} ${place.tenthUm}`)) wanted.add(id);
  return [...wanted];
}

/** Moves every place of a thing along its line. */
function shift(document: LayoutDocument, list: ListName, thing: Thing, by: TenthUm): void {
  for (const { to, distances = [] } of LISTS[list].refers) {
    if (to !== 'lines') continue;
    for (const way of distances) {
      const length = partAt(thing, way) as { tenthUm: TenthUm; typed: string } | undefined;
      if (!length) continue;
      if (length.tenthUm + by < 0) refuse('One of them would lie before the start of its line.');
      Object.assign(length, asTyped(length.tenthUm + by, document.shownUnit));
    }
  }
}

/** The id of the booster of that name, which is added where there is none. */
function boosterOf(document: LayoutDocument, text: string): string {
  const name = named(text, LONGEST_NAME.thing, 'Say its name.');
  const known = document.boosters.find((one) => one.name === name);
  if (known) return known.id;
  const id = freshId(asItWas(document), LISTS.boosters.prefix);
  document.boosters.push({ id, name });
  return id;
}
