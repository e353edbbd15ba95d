import type { Finding } from '../findings';
import { showLength, type TypedLength } from '../measure';
import type { Edit } from './edit';
import { FEATURE_KINDS, FEATURES } from './feature-kinds';
import type { Feature } from './lists/features';
import { isKind, type LayoutDocument } from './schema';

/** Of which there is one at a time on any stretch; platforms may lie on either side. */
type OneAtATime = Extract<Feature, { to: TypedLength }>;
const KINDS = FEATURE_KINDS.filter((kind) => 'oneAtATime' in FEATURES[kind]);

/** What was entered where there is already another of it: stretches across each other, and points or signals at one place. */
export const overlapFindings = (document: LayoutDocument): Finding<Edit>[] => [
  ...KINDS.flatMap((kind) => stretches(document, document.features.filter(isKind(kind)) as OneAtATime[])),
  ...atOnePlace(
    document.turnouts,
    ({ line, at, facing }) => `${line} ${at.tenthUm} ${facing}`,
    (one, other) => ({
      says: `${one.name} and ${other.name} stand at one place and lead the same way.`,
      advice: 'Move one of them; if it is one turnout with three legs, enter it as a three-way.',
      fixes: [],
    }),
  ),
  ...atOnePlace(
    document.features.filter(isKind('signal')),
    ({ line, at, governs }) => `${line} ${at.tenthUm} ${governs}`,
    (one, other) => ({
      says: `${one.name} and ${other.name} stand at one place and are read the same way: a driver sees two aspects at once.`,
      advice: 'Delete one of them, or move it.',
      fixes: [{ says: `Delete ${other.name}`, edit: { do: 'delete', id: other.id } }],
    }),
  ),
];

const overlap = (
  id: string,
  subject: string,
  rest: Pick<Finding<Edit>, 'says' | 'advice' | 'fixes'>,
): Finding<Edit> => ({
  id: `overlap ${id}`,
  kind: 'things that overlap',
  severity: 'check',
  subject,
  figures: [],
  ...rest,
});

function stretches(document: LayoutDocument, all: readonly OneAtATime[]): Finding<Edit>[] {
  const shown = (length: number) => showLength(length, document.shownUnit);
  const ordered = [...all].sort((a, b) => (a.line === b.line ? a.at.tenthUm - b.at.tenthUm : a.line < b.line ? -1 : 1));
  return ordered.flatMap((one, i) => {
    const beyond = ordered.findIndex(
      (other, k) => k > i && (other.line !== one.line || other.at.tenthUm >= one.to.tenthUm),
    );
    return ordered.slice(i + 1, beyond < 0 ? undefined : beyond).map((other) => {
      const line = document.lines.find(({ id }) => id === one.line)!.name;
      const to = Math.min(one.to.tenthUm, other.to.tenthUm);
      const within = other.to.tenthUm <= one.to.tenthUm || other.at.tenthUm === one.at.tenthUm;
      const shorter = other.to.tenthUm <= one.to.tenthUm ? other : one;
      return overlap(`${one.id} ${other.id}`, other.id, {
        says: `Two of ${line} are entered from ${shown(other.at.tenthUm)} to ${shown(to)}: ${sayStretch(one, shown)}, and ${sayStretch(other, shown)}.`,
        advice: 'Let one end where the other begins.',
        fixes: [
          within
            ? { says: `Delete ${sayStretch(shorter, shown)}`, edit: { do: 'delete', id: shorter.id } }
            : {
                says: `Let the first end at ${shown(other.at.tenthUm)}`,
                edit: { do: 'change features', ids: [one.id], change: { to: other.at } },
              },
        ],
      });
    });
  });
}

const sayStretch = ({ kind, at, to }: OneAtATime, shown: (length: number) => string): string =>
  `the ${FEATURES[kind].title.toLowerCase()} ${shown(at.tenthUm)} to ${shown(to.tenthUm)}`;

function atOnePlace<T extends { id: string; name: string }>(
  things: readonly T[],
  placeOf: (thing: T) => string,
  words: (one: T, other: T) => Pick<Finding<Edit>, 'says' | 'advice' | 'fixes'>,
): Finding<Edit>[] {
  const first = new Map<string, T>();
  return things.flatMap((thing): Finding<Edit>[] => {
    const place = placeOf(thing);
    const one = first.get(place);
    if (!one) {
      first.set(place, thing);
      return [];
    }
    return [overlap(`${one.id} ${thing.id}`, thing.id, words(one, thing))];
  });
}
