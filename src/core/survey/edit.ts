import { applyPatches, enablePatches, type Patch, produceWithPatches } from 'immer';
import { ASPECT_SYSTEM_IDS, TRACK_POWERS, type TrackPowerId } from '../kinds';
import { showLength, type TenthUm, type TypedLength } from '../measure';
import { asItWas, thingOf } from './draft';
import { type DivideEdit, editDivision } from './edit-divide';
import { editLines, type LineEdit } from './edit-lines';
import { editPoints, type PointsEdit } from './edit-points';
import { editRules, type RuleEdit } from './edit-rules';
import { editSensors, type SensorEdit } from './edit-sensors';
import { editSeveral, type SeveralEdit } from './edit-several';
import { editSignals, type SignalEdit } from './edit-signals';
import { editTraffic, type TrafficEdit } from './edit-traffic';
import { editTrains, type TrainEdit } from './edit-trains';
import { FEATURES } from './feature-kinds';
import { freeName, named, nextName } from './free-names';
import { LIST_NAMES, LISTS, type ListName, type Thing, thingsOf } from './lists';
import type { Feature } from './lists/features';
import { asTyped, freshId, isFreeId } from './new-document';
import { referenceFaults } from './reference-faults';
import { Refused, refuse } from './refused';
import { remove } from './remove';
import type { Facing, LayoutDocument, LineEnd } from './schema';
import { LONGEST_NAME } from './schema-parts';

enablePatches();

/** Everything a person can do to a layout. One vocabulary for buttons, keys, dragging and the fixes of findings. */
export type Edit =
  | { do: 'rename layout'; name: string }
  | { do: 'name directions'; up: string; down: string }
  | { do: 'show unit'; unit: 'cm' | 'inch' }
  /** On which side of the track signals stand, seen by those who read them. */
  | { do: 'stand signals'; side: LayoutDocument['signalSide'] }
  | { do: 'add line'; name: string; length: TypedLength; circuit: boolean }
  | { do: 'add cut'; kind: 'gap' | 'mark'; line: string; at: TypedLength }
  | { do: 'add buffer'; line: string; at: TypedLength }
  | { do: 'add signal'; line: string; at: TypedLength; governs: Facing; name?: string }
  /** Things as they are, each with an id of its own, and what to call all that. */
  | { do: 'add things'; things: readonly { list: ListName; thing: Thing }[]; says: string }
  | { do: 'set power'; power: TrackPowerId; ownReturns?: boolean }
  | { do: 'move'; id: string; at: TypedLength }
  /** On which day it was cut, drilled or laid, if it was. */
  | { do: 'fix'; id: string; certainty: 'tentative' | 'fixed'; on?: string }
  /** `id`: of the name that is changed. `as`: the id by which the block is known while it has no name, and which it keeps. */
  | { do: 'name block'; anchor: { line: string; at: TypedLength }; id?: string; as?: string; name: string }
  | { do: 'rename'; id: string; name: string }
  | { do: 'delete'; id: string }
  | { do: 'change line'; id: string; length: TypedLength }
  | DivideEdit
  | PointsEdit
  | LineEdit
  | SensorEdit
  | SeveralEdit
  | RuleEdit
  | SignalEdit
  | TrafficEdit
  | TrainEdit;

/** What was done, without what came of it: enough to undo it and to do it again. */
export interface Step {
  patches: Patch[];
  inverse: Patch[];
  /** In words, for the undo list: “Move gap to 96 cm”. */
  says: string;
}

export interface Change extends Step {
  document: LayoutDocument;
}

export type EditResult = { ok: true; change: Change } | { ok: false; problem: string };

/** Carries out an edit, or says why it cannot be done. The document given is never changed. */
export function applyEdit(document: LayoutDocument, edit: Edit): EditResult {
  try {
    let says = '';
    const [next, patches, inverse] = produceWithPatches(document, (draft) => {
      says = carryOut(draft as LayoutDocument, edit);
    });
    const faults = referenceFaults(next);
    if (faults[0]) return { ok: false, problem: `${faults[0].problem} ${faults[0].remedy}` };
    return { ok: true, change: { document: next, patches, inverse, says } };
  } catch (error) {
    if (error instanceof Refused) return { ok: false, problem: error.message };
    throw error;
  }
}

/** Another document in the place of this one, as one step that can be undone. The other must have been checked. */
export function replaceDocument(document: LayoutDocument, other: LayoutDocument, says: string): Change {
  const [next, patches, inverse] = produceWithPatches(document, () => other);
  return { document: next, patches, inverse, says };
}

/** Applies recorded patches: undo, redo and replay share this one path. */
export function applyChange(document: LayoutDocument, patches: Patch[]): LayoutDocument {
  return applyPatches(document, patches);
}

function carryOut(document: LayoutDocument, edit: Edit): string {
  const shown = (length: TypedLength) => showLength(length.tenthUm, document.shownUnit);
  switch (edit.do) {
    case 'rename layout':
      document.name = named(edit.name, LONGEST_NAME.layout, 'A layout needs a name.');
      return `Name it ${document.name}`;
    case 'name directions': {
      const [up, down] = [edit.up, edit.down].map((name) =>
        named(name, LONGEST_NAME.thing, 'Both directions need a name.'),
      ) as [string, string];
      if (up === down) refuse('The two directions need different names.');
      document.directions = { up, down };
      return `Call the directions ${up} and ${down}`;
    }
    case 'stand signals':
      document.signalSide = edit.side;
      return `Stand signals on the ${edit.side}`;
    case 'show unit':
      document.shownUnit = edit.unit;
      return `Show ${edit.unit === 'cm' ? 'centimetres' : 'inches'}`;
    case 'add line':
      return addLine(document, edit);
    case 'add cut': {
      refuseTaken(document, edit.line, edit.at);
      document.features.push({
        id: freshId(asItWas(document), FEATURES[edit.kind].prefix),
        line: edit.line,
        at: edit.at,
        certainty: 'tentative',
        ...(edit.kind === 'gap' ? { kind: 'gap', rail: 'right' } : { kind: 'mark' }),
      } as Feature);
      return `Add ${FEATURES[edit.kind].title.toLowerCase()} at ${shown(edit.at)}`;
    }
    case 'add buffer': {
      const there = asItWas(document).features.some(
        (f) => f.kind === 'buffer' && f.line === edit.line && f.at.tenthUm === edit.at.tenthUm,
      );
      if (there) refuse(`There is already a buffer at ${shown(edit.at)}.`);
      const { line, at } = edit;
      document.features.push({
        id: freshId(asItWas(document), FEATURES.buffer.prefix),
        kind: 'buffer',
        line,
        at,
        certainty: 'tentative',
      });
      return `Add buffer at ${shown(at)}`;
    }
    case 'add signal': {
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
      return `Place signal ${name} at ${shown(edit.at)}`;
    }
    case 'add sensor':
    case 'change sensor':
    case 'give inputs':
    case 'expect dropouts':
    case 'reckon with':
    case 'wind feeders':
    case 'hold sensors':
      return editSensors(document, edit);
    case 'add area':
    case 'change area':
    case 'run by':
    case 'add movement':
    case 'change movement':
    case 'price':
    case 'number signals':
    case 'number tracks':
      return editTraffic(document, edit);
    case 'own rules':
      return editRules(document, edit);
    case 'put aspect system':
    case 'add signals':
    case 'wire':
    case 'signal by':
      return editSignals(document, edit);
    case 'divide':
    case 'turnouts in':
      return editDivision(document, edit);
    case 'add turnout':
    case 'use pattern':
    case 'set option':
    case 'change turnout':
    case 'change crossing':
      return editPoints(document, edit);
    case 'add things':
      for (const { list, thing } of edit.things) thingsOf(document, list).push(thing);
      if (document.referenceLine === '') document.referenceLine = document.lines[0]?.id ?? '';
      return edit.says;
    case 'set power':
      document.power = edit.power;
      document.ownReturns = edit.ownReturns;
      return `Power by ${TRACK_POWERS[edit.power].says}`;
    case 'move':
      return move(document, edit.id, edit.at);
    case 'fix': {
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
    case 'name block': {
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
    case 'rename': {
      const list = LIST_NAMES.find((name) => thingsOf(document, name).some(({ id }) => id === edit.id));
      const thing = list && thingsOf(document, list).find(({ id }) => id === edit.id)!;
      const longest = list && LISTS[list].longestName;
      if (!thing || !longest || typeof thing.name !== 'string') return refuse('That has no name to change.');
      const name = named(edit.name, longest, 'Type a name.');
      thing.name = name === thing.name ? name : freeName(document, name);
      return `Rename to ${name}`;
    }
    case 'delete':
      return remove(document, [edit.id]);
    case 'split line':
    case 'merge lines':
      return editLines(document, edit);
    case 'delete all':
    case 'move all':
    case 'fix all':
    case 'renumber':
    case 'change features':
    case 'lead feeders':
      return editSeveral(document, edit);
    case 'change line': {
      const line = thingOf(document, 'lines', edit.id) ?? refuse('That line is no longer there.');
      line.length = edit.length;
      return `Make ${line.name} ${shown(edit.length)} long`;
    }
    default:
      return editTrains(document, edit);
  }
}

function addLine(document: LayoutDocument, edit: Extract<Edit, { do: 'add line' }>): string {
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
function move(document: LayoutDocument, id: string, at: TypedLength): string {
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
