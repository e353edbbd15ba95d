import { ASPECT_SYSTEM_IDS } from '../kinds';
import { showLength, type TenthUm, type TypedLength } from '../measure';
import { asItWas, thingOf } from './draft';
import { FEATURES } from './feature-kinds';
import { freeName, named, nextName } from './free-names';
import { LIST_NAMES, LISTS, type ListName, type Thing, thingsOf } from './lists';
import type { Feature } from './lists/features';
import { asTyped, freshId, isFreeId } from './new-document';
import { refuse } from './refused';
import type { Facing, LayoutDocument, LineEnd } from './schema';
import { LONGEST_NAME } from './schema-parts';

/** What is done with one thing, whatever it is. */
export type ThingEdit =
  | { do: 'add line'; name: string; length: TypedLength; circuit: boolean }
  | { do: 'add cut'; kind: 'gap' | 'mark'; line: string; at: TypedLength }
  | { do: 'add buffer'; line: string; at: TypedLength }
  | { do: 'add signal'; line: string; at: TypedLength; governs: Facing; name?: string }
  /** Things as they are, each with an id of its own, and what to call all that. */
  | { do: 'add things'; things: readonly { list: ListName; thing: Thing }[]; says: string }
  | { do: 'move'; id: string; at: TypedLength }
  /** On which day it was cut, drilled or laid, if it was. */
  | { do: 'fix'; id: string; certainty: 'tentative' | 'fixed'; on?: string }
  /** `id`: of the name that is changed. `as`: the id by which the block is known while it has no name, and which it keeps. */
  | { do: 'name block'; anchor: { line: string; at: TypedLength }; id?: string; as?: string; name: string }
  | { do: 'rename'; id: string; name: string }
  | { do: 'change line'; id: string; length: TypedLength }
  /** Undefined: both ways. */
  | { do: 'run line'; id: string; running: Facing | undefined };

type Of<D extends ThingEdit['do']> = Extract<ThingEdit, { do: D }>;

/** How each is carried out on a draft; returns what was done, in words. */
export const THING_EDITS: { readonly [D in ThingEdit['do']]: (document: LayoutDocument, edit: Of<D>) => string } = {
  'add line': addLine,
  'add cut': addCut,
  'add buffer': addBuffer,
  'add signal': addSignal,
  'add things': addThings,
  move,
  fix,
  'name block': nameBlock,
  rename,
  'change line': changeLine,
  'run line': runLine,
};

function addLine(document: LayoutDocument, edit: Of<'add line'>): string {
  const id = freshId(asItWas(document), LISTS.lines.prefix);
  document.lines.push({
    id,
    name: edit.name.trim() ? named(edit.name, LONGEST_NAME.track, '') : id,
    length: edit.length,
  });
  if (document.lines.length === 1) document.referenceLine = id;
  if (edit.circuit) {
    document.joins.push({
      id: freshId(asItWas(document), LISTS.joins.prefix),
      a: { line: id, end: 'end' },
      b: { line: id, end: 'start' },
    });
  }
  return `Add line ${edit.name}`;
}

/** A gap or block mark takes the signals that stand at it along; a turnout takes nothing. */
function move(document: LayoutDocument, { id, at }: Of<'move'>): string {
  const shown = showLength(at.tenthUm, document.shownUnit);
  const turnout = thingOf(document, 'turnouts', id);
  if (turnout) {
    turnout.at = at;
    return `Move ${turnout.name} to ${shown}`;
  }
  const sensor = thingOf(document, 'sensors', id);
  if (sensor) {
    sensor.anchor.at = at;
    return `Move ${sensor.name} to ${shown}`;
  }
  const feature = thingOf(document, 'features', id) ?? refuse('It is no longer there.');
  const from = feature.at.tenthUm;
  if (feature.kind === 'gap' || feature.kind === 'mark') {
    refuseTaken(document, feature.line, at, id);
    asItWas(document).features.forEach((other, i) => {
      if (other.kind === 'signal' && other.line === feature.line && other.at.tenthUm === from)
        document.features[i]!.at = at;
    });
  }
  if ('to' in feature) feature.to = asTyped(feature.to.tenthUm + at.tenthUm - from, document.shownUnit);
  feature.at = at;
  const what = 'name' in feature ? feature.name : FEATURES[feature.kind].title.toLowerCase();
  return `Move ${what} to ${shown}`;
}

/** A place, and the end of a line that is joined to it when it is an end itself. */
function samePlaces(document: LayoutDocument, line: string, at: TenthUm): { line: string; at: TenthUm }[] {
  const lengthOf = (id: string) => document.lines.find((l) => l.id === id)?.length.tenthUm ?? 0;
  const placeOf = ({ line: of, end }: LineEnd) => ({ line: of, at: end === 'start' ? 0 : lengthOf(of) });
  const joined = document.joins.flatMap(({ a, b }) => {
    const [one, two] = [placeOf(a), placeOf(b)];
    const is = (place: { line: string; at: TenthUm }) => place.line === line && place.at === at;
    return is(one) ? [two] : is(two) ? [one] : [];
  });
  return [{ line, at }, ...joined];
}

function refuseTaken(document: LayoutDocument, line: string, at: TypedLength, but?: string): void {
  const places = samePlaces(asItWas(document), line, at.tenthUm);
  const there = asItWas(document).features.find(
    (f) =>
      (f.kind === 'gap' || f.kind === 'mark') &&
      f.id !== but &&
      places.some((place) => place.line === f.line && place.at === f.at.tenthUm),
  );
  if (!there) return;
  const what = FEATURES[there.kind].title.toLowerCase();
  const where = showLength(there.at.tenthUm, document.shownUnit);
  const one = there.line === line && there.at.tenthUm === at.tenthUm;
  refuse(
    one
      ? `There is already a ${what} at ${where}.`
      : `There is already a ${what} at ${where}${there.line === line ? '' : ` on ${document.lines.find((l) => l.id === there.line)?.name}`}, which is the same place: the two ends meet there.`,
  );
}

function addCut(document: LayoutDocument, edit: Of<'add cut'>): string {
  refuseTaken(document, edit.line, edit.at);
  document.features.push({
    id: freshId(asItWas(document), FEATURES[edit.kind].prefix),
    line: edit.line,
    at: edit.at,
    certainty: 'tentative',
    ...(edit.kind === 'gap' ? { kind: 'gap', rail: 'right' } : { kind: 'mark' }),
  } as Feature);
  return `Add ${FEATURES[edit.kind].title.toLowerCase()} at ${showLength(edit.at.tenthUm, document.shownUnit)}`;
}

function addBuffer(document: LayoutDocument, edit: Of<'add buffer'>): string {
  const shown = showLength(edit.at.tenthUm, document.shownUnit);
  const there = asItWas(document).features.some(
    (f) => f.kind === 'buffer' && f.line === edit.line && f.at.tenthUm === edit.at.tenthUm,
  );
  if (there) refuse(`There is already a buffer at ${shown}.`);
  const { line, at } = edit;
  document.features.push({
    id: freshId(asItWas(document), FEATURES.buffer.prefix),
    kind: 'buffer',
    line,
    at,
    certainty: 'tentative',
  });
  return `Add buffer at ${shown}`;
}

function addSignal(document: LayoutDocument, edit: Of<'add signal'>): string {
  const name = freeName(document, edit.name?.trim() || nextName(document, 'S'));
  const twin = asItWas(document).features.find(
    (f) =>
      f.kind === 'signal' && f.line === edit.line && f.at.tenthUm === edit.at.tenthUm && f.governs === edit.governs,
  );
  if (twin) refuse(`Signal ${(twin as { name: string }).name} already stands there for that direction.`);
  document.features.push({
    id: freshId(asItWas(document), FEATURES.signal.prefix),
    kind: 'signal',
    name,
    line: edit.line,
    at: edit.at,
    governs: edit.governs,
    system: ASPECT_SYSTEM_IDS[0]!,
    certainty: 'tentative',
  });
  return `Place signal ${name} at ${showLength(edit.at.tenthUm, document.shownUnit)}`;
}

function addThings(document: LayoutDocument, edit: Of<'add things'>): string {
  for (const { list, thing } of edit.things) thingsOf(document, list).push(thing);
  if (document.referenceLine === '') document.referenceLine = document.lines[0]?.id ?? '';
  return edit.says;
}

function fix(document: LayoutDocument, edit: Of<'fix'>): string {
  const thing =
    thingOf(document, 'features', edit.id) ??
    thingOf(document, 'turnouts', edit.id) ??
    thingOf(document, 'crossings', edit.id) ??
    thingOf(document, 'sensors', edit.id);
  if (!thing) return refuse('It is no longer there.');
  thing.certainty = edit.certainty;
  thing.fixedOn = edit.certainty === 'fixed' ? edit.on : undefined;
  return edit.certainty === 'fixed' ? 'Mark as fixed' : 'Mark as tentative';
}

function nameBlock(document: LayoutDocument, edit: Of<'name block'>): string {
  const name = named(edit.name, LONGEST_NAME.thing, 'A block needs a name.');
  if (asItWas(document).blocks.some((b) => b.name === name && b.id !== edit.id))
    refuse(`There is already a block ${name}.`);
  const known = edit.id === undefined ? undefined : thingOf(document, 'blocks', edit.id);
  if (known) known.name = name;
  else {
    const was = asItWas(document);
    const kept = edit.as !== undefined && isFreeId(was, edit.as) ? edit.as : freshId(was, LISTS.blocks.prefix);
    document.blocks.push({ id: kept, name, anchor: edit.anchor });
  }
  return `Name block ${name}`;
}

function rename(document: LayoutDocument, edit: Of<'rename'>): string {
  const list = LIST_NAMES.find((name) => thingsOf(document, name).some(({ id }) => id === edit.id));
  const thing = list && thingsOf(document, list).find(({ id }) => id === edit.id)!;
  const longest = list && LISTS[list].longestName;
  if (!thing || !longest || typeof thing.name !== 'string') return refuse('That has no name to change.');
  const name = named(edit.name, longest, 'Type a name.');
  thing.name = name === thing.name ? name : freeName(document, name);
  return `Rename to ${name}`;
}

function changeLine(document: LayoutDocument, edit: Of<'change line'>): string {
  const line = thingOf(document, 'lines', edit.id) ?? refuse('That line is no longer there.');
  line.length = edit.length;
  return `Make ${line.name} ${showLength(edit.length.tenthUm, document.shownUnit)} long`;
}

function runLine(document: LayoutDocument, { id, running }: Of<'run line'>): string {
  const line = thingOf(document, 'lines', id) ?? refuse('That line is no longer there.');
  line.running = running;
  return running ? `Run ${line.name} ${document.directions[running]} only` : `Run ${line.name} both ways`;
}
