import type { LayoutDocument } from './schema';

/** What is for people alone: names and words, what was typed, how things are shown, what is sure and what an idea. */
const FOR_PEOPLE: ReadonlySet<string> = new Set([
  'name',
  'notes',
  'typed',
  'certainty',
  'fixedOn',
  'input',
  'shownUnit',
  'directions',
  'referenceLine',
  'drawing',
  'blocks',
  'areas',
  'movements',
  'people',
  'prices',
  'modules',
  'dropouts',
  'electrics',
  'noticesMa',
  'turns',
  'turnoutsIn',
]);

const known = new WeakMap<LayoutDocument, string>();
function whatRuns(document: LayoutDocument): string {
  let text = known.get(document);
  if (text === undefined) {
    text = JSON.stringify(document, (key, value) => (FOR_PEOPLE.has(key) ? undefined : value));
    if (Object.isFrozen(document)) known.set(document, text);
  }
  return text;
}

/** Trains and rules do the same in both documents: they differ in what is for people alone. What was proved of one is true of the other. */
export const runsAlike = (one: LayoutDocument, other: LayoutDocument): boolean =>
  one === other || whatRuns(one) === whatRuns(other);
