import type { TenthUm, TypedLength } from '../measure';
import { asItWas, thingOf } from './draft';
import { LIST_NAMES, LISTS, type Reference, type Thing, thingsOf } from './lists';
import { holdersOf, idsNamed, partAt } from './lists/references';
import { asTyped, freshId } from './new-document';
import { refuse } from './refused';
import { callThing } from './say-thing';
import type { LayoutDocument } from './schema';

/** What can be done to lines as wholes. Neither changes anything but where distances are counted from. */
export type LineEdit =
  /** At a distance, from where a line of its own goes on. */
  | { do: 'split line'; id: string; at: TypedLength }
  /** A line whose start is joined to the end of another becomes part of that one. */
  | { do: 'merge lines'; join: string };

/** Does it to the draft; what was done, in words. */
export const editLines = (document: LayoutDocument, edit: LineEdit): string =>
  edit.do === 'split line' ? splitLine(document, edit.id, edit.at) : mergeLines(document, edit.join);

type Holder = { line: string; end?: 'start' | 'end' } & Record<string, unknown>;

/** Every place at which a thing names a line, once each: what holds the name, and the distances that belong to it. */
function placesOn(document: LayoutDocument, line: string) {
  const found: {
    list: (typeof LIST_NAMES)[number];
    thing: Thing;
    holder: Holder;
    lengths: TypedLength[];
    reference: Reference;
  }[] = [];
  for (const list of LIST_NAMES)
    for (const reference of LISTS[list].refers) {
      if (reference.to !== 'lines') continue;
      thingsOf(asItWas(document), list).forEach((before, i) => {
        if (!idsNamed(before, reference).includes(line)) return;
        const thing = thingsOf(document, list)[i]!;
        const lengths = (reference.distances ?? []).flatMap(
          (distance) => (partAt(thing, distance) as TypedLength | undefined) ?? [],
        );
        for (const { holder, field } of holdersOf(thing, reference))
          if (holder[field] === line) found.push({ list, thing, holder: holder as Holder, lengths, reference });
      });
    }
  return found;
}

function splitLine(document: LayoutDocument, id: string, { tenthUm: at }: TypedLength): string {
  const before = asItWas(document).lines.find((one) => one.id === id);
  if (!before) return refuse('That line is no longer there.');
  if (at <= 0 || at >= before.length.tenthUm) return refuse(`${before.name} can only be split between its ends.`);
  const unit = document.shownUnit;
  const next = freshId(asItWas(document), LISTS.lines.prefix);
  const shift = (length: TypedLength, by: TenthUm) => Object.assign(length, asTyped(length.tenthUm + by, unit));
  const copies: { list: (typeof LIST_NAMES)[number]; thing: Thing }[] = [];
  for (const { list, thing, holder, lengths, reference } of placesOn(document, id)) {
    if (reference.takesEnd) {
      if (holder.end === 'end') holder.line = next;
      continue;
    }
    const [from, to = from] = lengths as [TypedLength, TypedLength?];
    const here = from.tenthUm === at;
    if (here && (list === 'turnouts' || list === 'crossings')) refuse(`${callThing(list, thing, unit)} stands there.`);
    /** What stands at the place stays at the end, but for what is read or stands from beyond. */
    const beyond = here ? [thing.governs, thing.facing, holder.facing].includes('down') : from.tenthUm > at;
    if (beyond) {
      holder.line = next;
      for (const length of lengths) shift(length, -at);
    } else if (to!.tenthUm > at) {
      if (thing.kind === 'taped')
        refuse(`${callThing(list, thing, unit)} was measured across that place. Delete it first, or split beside it.`);
      const rest = structuredClone(asItWas(document)[list].find((one) => one.id === thing.id)) as unknown as Thing;
      const [, end] = reference.distances!;
      Object.assign(rest, {
        line: next,
        [reference.distances![0]!]: asTyped(0, unit),
        [end!]: asTyped(to!.tenthUm - at, unit),
      });
      copies.push({ list, thing: rest });
      Object.assign(to!, asTyped(at, unit));
    }
  }
  const ids: string[] = [next];
  for (const { list, thing } of copies) {
    thing.id = freshId(asItWas(document), /^[A-Za-z]+/.exec(thing.id)![0], ids);
    ids.push(thing.id);
    thingsOf(document, list).push(thing);
  }
  document.lines.push({
    ...before,
    id: next,
    name: nameAfter(asItWas(document), before.name),
    length: asTyped(before.length.tenthUm - at, unit),
  });
  thingOf(document, 'lines', id)!.length = asTyped(at, unit);
  /** Before the others, so that the drawing goes on from there first. */
  document.joins.unshift({
    id: freshId(asItWas(document), LISTS.joins.prefix, ids),
    a: { line: id, end: 'end' },
    b: { line: next, end: 'start' },
  });
  return `Split ${before.name}`;
}

function mergeLines(document: LayoutDocument, id: string): string {
  const join = asItWas(document).joins.find((one) => one.id === id) ?? refuse('They are no longer joined.');
  const [one, other] = join.a.end === 'end' ? [join.a, join.b] : [join.b, join.a];
  const lineOf = (line: string) => asItWas(document).lines.find((own) => own.id === line)!;
  const [first, second] = [lineOf(one.line), lineOf(other.line)];
  if (one.end !== 'end' || other.end !== 'start')
    refuse(
      `${first.name} and ${second.name} are counted towards each other, or away from each other: tape one of them from its other end first.`,
    );
  if (first.running !== second.running)
    refuse(`${first.name} and ${second.name} are run in different directions: say the same of both first.`);
  if (first.id === second.id) refuse(`${first.name} is joined to itself already.`);
  const unit = document.shownUnit;
  for (const { holder, lengths } of placesOn(document, second.id)) {
    holder.line = first.id;
    for (const length of lengths) Object.assign(length, asTyped(length.tenthUm + first.length.tenthUm, unit));
  }
  document.joins = document.joins.filter((own) => own.id !== id);
  document.lines = document.lines.filter((own) => own.id !== second.id);
  thingOf(document, 'lines', first.id)!.length = asTyped(first.length.tenthUm + second.length.tenthUm, unit);
  if (document.referenceLine === second.id) document.referenceLine = first.id;
  return `Put ${second.name} behind ${first.name}`;
}

/** “Main 2”, or the next number that is free. */
function nameAfter({ lines }: LayoutDocument, name: string): string {
  const names = new Set(lines.map((line) => line.name));
  for (let n = 2; ; n++) if (!names.has(`${name} ${n}`)) return `${name} ${n}`.slice(-60);
}
