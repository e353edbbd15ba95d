import { showLength, type TypedLength } from '../measure';
import { asItWas, thingOf } from './draft';
import { freeName, named, nextName } from './free-names';
import { LISTS } from './lists';
import type { Crossing } from './lists/crossings';
import type { Turnout } from './lists/turnouts';
import { freshId } from './new-document';
import { refuse } from './refused';
import type { LayoutDocument } from './schema';
import { LONGEST_NAME } from './schema-parts';

/** Where a new turnout's diverging leg goes: a new dead-end track, or a new track that comes back by a second turnout. */
export type LeadsTo =
  | { kind: 'dead end'; name: string; length: TypedLength }
  | { kind: 'back'; name: string; length: TypedLength; at: TypedLength };

/** What can be done to points, and to the ways of working of points, signals and sensors. */
export type PointsEdit =
  | { do: 'add turnout'; turnout: Omit<Turnout, 'id' | 'legs' | 'name'>; leads: LeadsTo; name?: string }
  /** A way of working that the thing uses, or no longer. */
  | { do: 'use pattern'; id: string; pattern: string; on: boolean }
  /** The same at several things. */
  | { do: 'use pattern at all'; ids: readonly string[]; pattern: string; on: boolean }
  | {
      do: 'change turnout';
      id: string;
      change: Partial<Pick<Turnout, 'hand' | 'clearance' | 'motor' | 'throwMs' | 'lies' | 'spareContacts'>>;
    }
  /** What is set about a pattern at a thing; without a value it is as usual. */
  | { do: 'set option'; id: string; pattern: string; option: string; value?: number }
  | { do: 'change crossing'; id: string; change: Pick<Crossing, 'turned'> };

/** Does it to the draft; what was done, in words. */
export function editPoints(document: LayoutDocument, edit: PointsEdit): string {
  switch (edit.do) {
    case 'add turnout':
      return addTurnout(document, edit);
    case 'use pattern':
      return `Change ${putPattern(document, edit.id, edit).name}`;
    case 'use pattern at all': {
      for (const id of edit.ids) putPattern(document, id, edit);
      return `Change ${edit.ids.length} things`;
    }
    case 'set option': {
      const thing = workedThing(document, edit.id);
      const { pattern, option, value } = edit;
      const others = (thing.settings ?? []).filter((one) => one.pattern !== pattern || one.option !== option);
      const all = value === undefined ? others : [...others, { pattern, option, value }];
      thing.settings = all.length > 0 ? all : undefined;
      return `Change ${thing.name}`;
    }
    case 'change turnout': {
      const turnout = thingOf(document, 'turnouts', edit.id) ?? refuse('That turnout is no longer there.');
      Object.assign(turnout, edit.change);
      return `Change ${turnout.name}`;
    }
    case 'change crossing': {
      const crossing = thingOf(document, 'crossings', edit.id) ?? refuse('That crossing is no longer there.');
      Object.assign(crossing, edit.change);
      return `Change ${crossing.name}`;
    }
  }
}

function putPattern(document: LayoutDocument, id: string, { pattern, on }: { pattern: string; on: boolean }) {
  const thing = workedThing(document, id);
  const others = (thing.patterns ?? []).filter((one) => one !== pattern);
  const all = on ? [...others, pattern] : others;
  thing.patterns = all.length > 0 ? all : undefined;
  return thing;
}

/** A thing at which patterns can be chosen; refuses where there is none. */
function workedThing(document: LayoutDocument, id: string) {
  const feature = thingOf(document, 'features', id);
  return (
    (feature?.kind === 'signal' && feature) ||
    thingOf(document, 'sensors', id) ||
    thingOf(document, 'turnouts', id) ||
    thingOf(document, 'crossings', id) ||
    refuse('It is no longer there.')
  );
}

function addTurnout(document: LayoutDocument, edit: Extract<PointsEdit, { do: 'add turnout' }>): string {
  const { leads, turnout } = edit;
  const line = freshId(asItWas(document), LISTS.lines.prefix);
  document.lines.push({
    id: line,
    name: leads.name.trim() ? named(leads.name, LONGEST_NAME.track, '') : line,
    length: leads.length,
  });
  const up = turnout.facing === 'up';
  const id = freshId(asItWas(document), LISTS.turnouts.prefix);
  const name = freeName(document, edit.name?.trim() || nextName(document, 'T'));
  document.turnouts.push({ ...turnout, id, name, legs: [{ line, end: up ? 'start' : 'end' }] });
  if (leads.kind === 'back') {
    const beyond = up ? leads.at.tenthUm > turnout.at.tenthUm : leads.at.tenthUm < turnout.at.tenthUm;
    if (!beyond)
      refuse(
        `The track leaves ${up ? 'upwards' : 'downwards'}, so it has to come back at ${up ? 'more' : 'less'} than ${showLength(turnout.at.tenthUm, document.shownUnit)}.`,
      );
    const second = freshId(asItWas(document), LISTS.turnouts.prefix, [id]);
    document.turnouts.push({
      ...turnout,
      id: second,
      name: nextName(document, 'T', name),
      at: leads.at,
      facing: up ? 'down' : 'up',
      hand: turnout.hand === 'left' ? 'right' : 'left',
      legs: [{ line, end: up ? 'end' : 'start' }],
    });
  }
  return `Add turnout ${name}`;
}
