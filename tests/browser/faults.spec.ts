import { expect, test } from '@playwright/test';
import { signalsOf } from '../../src/core/survey';
import { learningOval } from '../../src/demo/learning-oval';
import { choose, openLayout, stage, watchErrors } from './open';

test('a fault is looked at in Prove, is no verdict on the layout itself, and strikes and is mended in Rehearse', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const document = learningOval();
  for (const signal of signalsOf(document)) signal.broken = 'clear';
  await openLayout(page, document);
  await stage(page, 'Prove');
  await page.getByRole('button', { name: 'Look at every state' }).click();
  const verdicts = page.getByRole('list', { name: 'Verdicts' });
  await expect(verdicts.getByText(/^Proved: no two trains ever touch/)).toBeVisible();
  await expect(page.getByRole('banner').getByText('Proved for 2 trains')).toBeVisible();

  await choose(page, 'What fails', 'A detector notices nothing');
  await expect(verdicts).toHaveCount(0);
  await choose(page, 'Which one', 'B2');
  await page.getByRole('button', { name: 'Look at every state' }).click();
  await expect(verdicts.getByText('Two trains can touch.')).toBeVisible();
  await expect(verdicts.getByText('Detector B2 notices nothing.').first()).toBeVisible();
  await expect(page.getByText('With this, at any moment: Detector B2 notices nothing.')).toBeVisible();
  await expect(page.getByRole('banner').getByText('Proved for 2 trains')).toBeVisible();
  await choose(page, 'What fails', 'A detector is stuck');
  await page.getByRole('button', { name: 'Look at every state' }).click();
  await expect(verdicts.getByText(/^Proved even so: no two trains ever touch/)).toBeVisible();
  await expect(verdicts.getByText(/^Proved: /)).toHaveCount(0);
  await choose(page, 'What fails', 'Nothing');
  await expect(verdicts.getByText(/^Proved: no two trains ever touch/)).toBeVisible();

  await stage(page, 'Rehearse');
  await page.getByRole('button', { name: 'Signal S1' }).first().press('Enter');
  await expect(page.getByText(/^S1 shows stop:/)).toBeVisible();
  await choose(page, 'Let it fail', 'Its wire breaks, or its relay is dead');
  await page.getByRole('button', { name: '+1 s' }).click();
  const broken = 'The wire of S1 is broken, or its relay is dead.';
  await expect(page.getByText(`${broken} By the rules S1 shows stop:`)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Signal S1 shows clear' })).toBeVisible();
  await page.getByRole('complementary', { name: 'Reasoning' }).getByRole('button', { name: 'Close' }).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: broken })
    .filter({ has: page.getByRole('button', { name: 'Mend it' }) })
    .getByRole('button')
    .click();
  await expect(page.getByRole('button', { name: 'Mend it' })).toHaveCount(0);
  await expect(page.getByText('No longer: the wire of S1 is broken, or its relay is dead').first()).toBeVisible();
  expect(errors).toEqual([]);
});

test('what failed in a kept run fails again on the layout as it is now; what is gone is named', async ({ page }) => {
  const errors = watchErrors(page);
  const layout = learningOval();
  const id = await openLayout(page, layout);
  const fail = (tick: number, thing: string) => ({
    tick,
    command: { kind: 'fail', fault: 'detector blind', thing, on: true },
  });
  const [train] = layout.trains;
  const commands = [
    fail(50, layout.sensors[1]!.id),
    fail(60, 'd-gone'),
    { tick: 70, command: { kind: 'run', train: train!.id, on: false } },
  ];
  const run = { name: 'Blind', document: layout, seed: 1, ticks: 500, commands, hash: '0123456789abcdef' };
  for (const one of [run, { ...run, name: 'Sound', commands: [] }])
    expect((await page.request.post(`/api/layouts/${id}/runs`, { data: one })).status()).toBe(201);
  await stage(page, 'Rehearse');
  await page.getByRole('button', { name: 'Runs' }).click();
  const dialog = page.getByRole('dialog', { name: 'Runs' });
  const faultsOf = (name: string) =>
    dialog.getByRole('listitem').filter({ hasText: name }).getByRole('button', { name: 'Its faults alone' });
  await faultsOf('Sound').click();
  await expect(dialog.getByText('Nothing failed in “Sound”.')).toBeVisible();
  await faultsOf('Blind').click();
  await expect(dialog.getByText(/“Blind” on the layout as it is now: (no|\d+) mishaps? in 0:10\.0\./)).toBeVisible();
  await expect(dialog.getByRole('alert')).toContainText(
    '0:01.2 Detector d-gone notices nothing: Nothing fails so there.',
  );
  await page.keyboard.press('Escape');
  const events = page.getByRole('list', { name: 'Events' }).getByRole('listitem');
  await expect(events.filter({ hasText: 'notices nothing' }).first()).toBeVisible();
  expect(await events.filter({ hasText: 'Halted' }).count()).toBe(0);
  expect(errors).toEqual([]);
});
