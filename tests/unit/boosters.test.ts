import { expect, test } from 'vitest';
import { checkDesign, viewDesign } from '@/core/design';
import { applyEdit, type Edit, type LayoutDocument, newDocument, readDocument, writeDocumentText } from '@/core/survey';
import { readSurvey } from '@/core/walk';

const edited = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const result = applyEdit(d, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
/** A circuit cut in two, with a feeder in each half. */
function circuit(): LayoutDocument {
  const { additions, bad } = readSurvey(
    'line Main 400 circuit\ngap 100\n300\nfeeder 50 F1 booster East\nfeeder 200 F2 booster East',
    newDocument('Circuit'),
  );
  expect(bad).toEqual([]);
  return edited(newDocument('Circuit'), { do: 'add things', things: additions, says: 'Survey' });
}
const feeders = (d: LayoutDocument) => d.features.filter((one) => one.kind === 'feeder');
const districts = (d: LayoutDocument) =>
  viewDesign(d, checkDesign(d)).districts.map(({ booster, feeders: own }) => [booster.name, own.length]);

test('a booster spoken of twice is one; a feeder is led from another by its name, by choosing, or from none', () => {
  const d = circuit();
  expect(d.boosters.map(({ name }) => name)).toEqual(['East']);
  expect(districts(d)).toEqual([['East', 2]]);
  const second = feeders(d)[1]!.id;
  const west = edited(d, { do: 'lead feeders', ids: [second], from: ' West ' });
  expect(districts(west)).toEqual([
    ['East', 1],
    ['West', 1],
  ]);
  const back = edited(west, { do: 'lead feeders', ids: [second], from: 'East' });
  expect(back.boosters).toHaveLength(2);
  expect(districts(back)).toEqual([
    ['East', 2],
    ['West', 0],
  ]);
  expect(feeders(edited(d, { do: 'lead feeders', ids: [second], from: '' }))[1]!.booster).toBeUndefined();
});
test('renamed, it is the same for its feeders; deleted, they say nothing of it', () => {
  const d = circuit();
  const { id } = d.boosters[0]!;
  expect(districts(edited(d, { do: 'rename', id, name: 'North' }))).toEqual([['North', 2]]);
  const without = edited(d, { do: 'delete', id });
  expect(without.boosters).toEqual([]);
  expect(feeders(without).map(({ booster }) => booster)).toEqual([undefined, undefined]);
  expect(readDocument(JSON.parse(writeDocumentText(without))).ok).toBe(true);
});
test('a feeder of a booster that is not there is refused', () => {
  const d = circuit();
  const bad = { ...d, boosters: [] };
  const reading = readDocument(JSON.parse(writeDocumentText(bad)));
  expect(reading.ok ? '' : reading.faults.map(({ problem }) => problem).join()).toContain('There is no booster');
  expect(applyEdit(d, { do: 'lead feeders', ids: [feeders(d)[0]!.id], from: 'x'.repeat(30) }).ok).toBe(false);
});
