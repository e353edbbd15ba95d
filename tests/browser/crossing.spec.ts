import { expect, test } from '@playwright/test';
import { newDocument } from '../../src/core/survey';
import { readSurvey, withAdditions } from '../../src/core/walk';
import { train, vehicle } from '../../src/demo/build';
import { choose, openLayout, savedDocument, stage, watchErrors } from './open';

/** Two lines that cross, and a railcar on each. */
function crossed() {
  const bare = newDocument('Two lines that cross');
  const said = 'line Up 300\nline Over 300\nline Up\ncrossing 150 with Over 140 angle 30 clear 10 X';
  const d = withAdditions(bare, readSurvey(said, bare).additions);
  const rates = { up: 90, down: 150, delayMs: 200, is: 'measured' } as const;
  const [a, b] = d.lines.map(({ id }) => ({ line: id, at: 60, facing: 'up' as const }));
  return {
    ...d,
    vehicles: [vehicle('v', 'Railcar', 24, [2, 22], () => true, 100)],
    trains: [train('t1', 'One', ['v'], 40, a!, rates), train('t2', 'Two', ['v'], 40, b!, rates)],
  };
}

test('a crossing is divided, signalled and proved by what is proposed alone; a line is run one way, and proved anew', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, crossed());
  await stage(page, 'Detect');
  const detect = page.getByRole('complementary', { name: 'Detect' });
  await detect.getByRole('button', { name: 'Place these 4' }).click();
  await expect(detect).toContainText('It is divided as you wish');
  await stage(page, 'Signal');
  const signal = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(signal).toContainText('until nobody else is on or before X');
  await signal.getByRole('button', { name: 'Place these 4' }).click();
  await expect(signal).toContainText('Every boundary at which trains can wait has its signal: 4 in all.');
  await stage(page, 'Prove');
  await page.getByRole('button', { name: 'Look at every state' }).click();
  const verdict = page.getByRole('button', { name: 'Proof: Proved for 2 trains' });
  await expect(verdict).toBeVisible({ timeout: 60_000 });
  await stage(page, 'Survey');
  await page.getByText('Correct Up').click();
  await choose(page, 'Trains run it', /^eastbound only/);
  await expect(page.getByRole('button', { name: /^Proof: Not proved since/ })).toBeVisible();
  expect((await savedDocument(page, id)).lines.map(({ running }) => running)).toEqual(['up', undefined]);
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('S2 has no way on');
  await page.keyboard.press('Control+z');
  await expect(verdict).toBeVisible();
  expect(errors).toEqual([]);
});
