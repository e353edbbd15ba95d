import { applyPatches, enablePatches, type Patch, produceWithPatches } from 'immer';
import { type AcceptanceEdit, editAcceptances } from './edit-acceptances';
import { type DivideEdit, editDivision } from './edit-divide';
import { editLayout, type LayoutEdit } from './edit-layout';
import { editLines, type LineEdit } from './edit-lines';
import { editPoints, type PointsEdit } from './edit-points';
import { editRules, type RuleEdit } from './edit-rules';
import { editSensors, type SensorEdit } from './edit-sensors';
import { editSeveral, type SeveralEdit } from './edit-several';
import { editSignals, type SignalEdit } from './edit-signals';
import { THING_EDITS, type ThingEdit } from './edit-things';
import { editThrowRules, type ThrowRuleEdit } from './edit-throw-rules';
import { editTraffic, type TrafficEdit } from './edit-traffic';
import { editTrains, type TrainEdit } from './edit-trains';
import { referenceFaults } from './reference-faults';
import { Refused } from './refused';
import { remove } from './remove';
import type { LayoutDocument } from './schema';

enablePatches();

/** Everything a person can do to a layout. One vocabulary for buttons, keys, dragging and the fixes of findings. */
export type Edit =
  /** Several as one step, and what to call that. */
  { do: 'one after another'; edits: readonly Single[]; says: string } | Single;

type Single =
  | { do: 'delete'; id: string }
  | LayoutEdit
  | ThingEdit
  | DivideEdit
  | PointsEdit
  | LineEdit
  | SensorEdit
  | SeveralEdit
  | RuleEdit
  | SignalEdit
  | TrafficEdit
  | AcceptanceEdit
  | ThrowRuleEdit
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
  return edit.do === 'one after another' ? applyInOrder(document, edit.edits, edit.says) : applyOne(document, edit);
}

/** Each sees what those before it have done; where one is refused nothing is done. */
function applyInOrder(document: LayoutDocument, edits: readonly Single[], says: string): EditResult {
  const whole: Change = { document, patches: [], inverse: [], says };
  for (const edit of edits) {
    const result = applyOne(whole.document, edit);
    if (!result.ok) return result;
    whole.document = result.change.document;
    whole.patches.push(...result.change.patches);
    whole.inverse.unshift(...result.change.inverse);
  }
  return { ok: true, change: whole };
}

function applyOne(document: LayoutDocument, edit: Single): EditResult {
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

/** How each is carried out on a draft; returns what was done, in words. */
const EDITS: { readonly [D in Single['do']]: (document: LayoutDocument, edit: Extract<Single, { do: D }>) => string } =
  {
    ...THING_EDITS,
    delete: (document, { id }) => remove(document, [id]),
    'rename layout': editLayout,
    'name directions': editLayout,
    'show unit': editLayout,
    'stand signals': editLayout,
    'set power': editLayout,
    'add sensor': editSensors,
    'change sensor': editSensors,
    'give inputs': editSensors,
    'expect dropouts': editSensors,
    'reckon with': editSensors,
    'wind feeders': editSensors,
    'hold sensors': editSensors,
    'add area': editTraffic,
    'change area': editTraffic,
    'run by': editTraffic,
    'add movement': editTraffic,
    'change movement': editTraffic,
    price: editTraffic,
    'pay in': editTraffic,
    'number signals': editTraffic,
    'number tracks': editTraffic,
    'own rules': editRules,
    accept: editAcceptances,
    'accept no longer': editAcceptances,
    'add throw rule': editThrowRules,
    'put aspect system': editSignals,
    'add signals': editSignals,
    wire: editSignals,
    'signal by': editSignals,
    divide: editDivision,
    'turnouts in': editDivision,
    'add turnout': editPoints,
    'use pattern': editPoints,
    'use pattern at all': editPoints,
    'set option': editPoints,
    'change turnout': editPoints,
    'change crossing': editPoints,
    'split line': editLines,
    'merge lines': editLines,
    'delete all': editSeveral,
    'move all': editSeveral,
    'fix all': editSeveral,
    renumber: editSeveral,
    'change features': editSeveral,
    'lead feeders': editSeveral,
    'add train': editTrains,
    'change train': editTrains,
    'turn train': editTrains,
    'split train': editTrains,
    'join trains': editTrains,
    'keep vehicles': editTrains,
    'fit resistor axles': editTrains,
    'give own vehicles': editTrains,
    'fit axles': editTrains,
  };
function carryOut(document: LayoutDocument, edit: Single): string {
  return (EDITS[edit.do] as (document: LayoutDocument, edit: Single) => string)(document, edit);
}
