import type { Fix } from '../findings';
import { applyEdit, type Edit, type LayoutDocument, type Train } from '../survey';
import { consistOf, type Unseen, unseenOf } from './consist';

/**
 * Resistor axles for a train: for its last vehicle if with these it is seen well enough, else for every vehicle if that will do.
 * Nothing where neither does, or where nothing more would be seen.
 */
export function resistorAxles(
  document: LayoutDocument,
  train: Train,
  isEnough: (unseen: Unseen) => boolean = ({ all }) => !all,
): Fix<Edit>[] {
  const last = train.vehicles[train.vehicles.length - 1];
  for (const chosen of [document.vehicles.filter(({ id }) => id === last), document.vehicles]) {
    const blind = chosen.filter(
      ({ id, axles, takesNone }) =>
        train.vehicles.includes(id) &&
        !takesNone &&
        axles.length > 0 &&
        [axles[0]!, axles.at(-1)!].some(({ feeds }) => feeds === 'nothing'),
    );
    if (blind.length === 0) continue;
    const edit: Edit = { do: 'fit resistor axles', vehicles: blind.map(({ id }) => id) };
    const fitted = applyEdit(document, edit);
    if (!fitted.ok) continue;
    const after = fitted.change.document;
    if (!isEnough(unseenOf(after, consistOf(after, train)))) continue;
    const what = blind.length === 1 ? blind[0]!.name : `every vehicle of ${train.name}`;
    return [{ says: `Fit resistor axles to ${what}`, edit }];
  }
  return [];
}

/** What to do about what is not seen of a train: resistor axles as usual; where its wheels take none, what does without them. */
export function seeAll(
  document: LayoutDocument,
  train: Train,
  usual: string,
  isEnough?: (unseen: Unseen) => boolean,
): { advice: string; fixes: Fix<Edit>[] } {
  const fixes = resistorAxles(document, train, isEnough);
  const takeNone = document.vehicles.filter(({ id, takesNone }) => takesNone && train.vehicles.includes(id));
  if (fixes.length > 0 || takeNone.length === 0) return { advice: usual, fixes };
  const names = takeNone.map(({ name }) => name).join(', ');
  return {
    advice: `The wheels of ${names} take no resistor axle. Put a vehicle that is seen at either end, or let a block be freed by arrival: by a spot beyond it that notices any vehicle, once the whole train has passed.`,
    fixes,
  };
}

/** Takes a train off the track; it stays in the list. */
export const takenOff = ({ id, name }: Pick<Train, 'id' | 'name'>): Fix<Edit> => ({
  says: `Take ${name} off the track`,
  edit: { do: 'change train', id, change: { start: undefined } },
});
