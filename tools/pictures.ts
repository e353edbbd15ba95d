import { join } from 'node:path';
import type { Browser, BrowserContext, Page, Route } from '@playwright/test';
import { learningOval } from '../src/demo/learning-oval';
import { withScratchApplication } from './scratch';

/** Takes the pictures of docs/screenshots anew, from the demo data: node --import tsx tools/pictures.ts */
const FOLDER = join(import.meta.dirname, '../docs/screenshots');
const STATES_WIDTH = 1600;

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: true }).first();
const stage = (page: Page, name: string) =>
  page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .click();
const dialog = (page: Page) => page.getByRole('dialog');

class Album {
  private readonly states: string[] = [];

  constructor(
    private readonly address: string,
    private readonly browser: Browser,
  ) {}

  /** A fresh window on a layout of the list, or on the list itself. */
  async open(layout?: RegExp, theme: 'light' | 'dark' = 'light'): Promise<[Page, BrowserContext]> {
    const context = await this.browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.addCookies([{ name: 'theme', value: theme, url: this.address }]);
    const page = await context.newPage();
    await page.goto(this.address);
    if (layout) {
      await page.getByRole('link', { name: layout }).first().click();
      await page.getByText('Detection coverage').waitFor();
    }
    return [page, context];
  }

  async take(page: Page, name: string): Promise<void> {
    await page.waitForTimeout(600);
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
    console.log(name);
  }

  /** Keeps a picture for the sheet of empty, waiting and failed states. */
  async keep(page: Page): Promise<void> {
    await page.waitForTimeout(300);
    this.states.push((await page.screenshot()).toString('base64'));
  }

  async takeStates(): Promise<void> {
    const page = await this.browser.newPage({ viewport: { width: STATES_WIDTH, height: 100 } });
    const pictures = this.states.map((data) => `<img style="width:100%" src="data:image/png;base64,${data}">`).join('');
    await page.setContent(`<div style="display:grid;grid-template-columns:repeat(3,1fr);gap:10px">${pictures}</div>`);
    await page.waitForTimeout(500);
    await page.screenshot({ path: join(FOLDER, 'states.png'), fullPage: true });
  }
}

async function addGap(page: Page, at: string): Promise<void> {
  await page.getByRole('radio', { name: 'Gap', exact: true }).click();
  await page.getByRole('textbox', { name: 'At', exact: true }).fill(at);
  await button(page, 'Add the gap').click();
}

async function runOn(page: Page, seconds: number): Promise<void> {
  await stage(page, 'Rehearse');
  for (let i = 0; i < seconds; i += 10) {
    for (let k = 0; k < 10; k++) await button(page, '+1 s').click();
  }
}

async function takeViews(album: Album): Promise<void> {
  const [list] = await album.open();
  await album.take(list, 'layouts');
  await list.getByLabel('Name').first().fill('Attic');
  await button(list, 'Make it').click();
  await list.getByText('How long is your line?').waitFor();
  await album.keep(list);

  const [demo] = await album.open(/^Ondrel/);
  await button(demo, /^Signal FE/).click();
  await album.take(demo, 'survey');
  await demo.keyboard.press('Escape');
  await stage(demo, 'Traffic');
  await button(demo, /^Marrowick: /).click();
  await album.take(demo, 'traffic');
  await button(demo, 'Compare schemes …').click();
  await dialog(demo).getByLabel('Keep the present scheme as').fill('All of it');
  await button(demo, 'Keep').click();
  await dialog(demo)
    .getByRole('checkbox', { name: /All of it/ })
    .click();
  await demo.getByText('Findings that are unsafe').waitFor();
  await album.take(demo, 'schemes');
  await demo.keyboard.press('Escape');
  await stage(demo, 'Detect');
  await album.take(demo, 'detect');
  await stage(demo, 'Signal');
  await button(demo, /^Block FM/).click();
  await demo.getByLabel('Set a resistor axle down here').check();
  await button(demo, /^Signal FE/).click();
  await album.take(demo, 'signal');
  await stage(demo, 'Lock');
  await button(demo, 'MW → M2W').click();
  await demo.getByRole('complementary').getByRole('button', { name: 'M1E → FE' }).hover();
  await album.take(demo, 'lock');
  await stage(demo, 'Signal');
  await button(demo, /^Signal FE/).click();
  await button(demo, 'Its rule as text').click();
  await button(demo, 'Look at its rules, and change them').click();
  await demo.locator('.cm-value').first().waitFor();
  await album.take(demo, 'rules');
  await demo.keyboard.press('Escape');
  for (const [name, theme] of [
    ['rehearse', 'light'],
    ['rehearse-dark', 'dark'],
  ] as const) {
    const [page] = await album.open(/^Ondrel/, theme);
    await runOn(page, 130);
    await album.take(page, name);
  }
  const [roster] = await album.open(/^Ondrel/);
  await button(roster, 'Roster and trains …').click();
  await dialog(roster).getByRole('table').waitFor();
  await album.take(roster, 'roster');
  await dialog(roster).getByRole('tab', { name: 'Trains' }).click();
  await dialog(roster).getByRole('combobox', { name: 'Train', exact: true }).click();
  await roster.getByRole('option', { name: 'Quarry empties' }).click();
  await album.take(roster, 'trains');
  await button(demo, 'Print the sheet, or save it as a drawing').click();
  await album.take(demo, 'paper');
}

/** The round of the trains of an example, opened as a copy. */
async function takeCycle(album: Album): Promise<void> {
  const [page] = await album.open();
  await button(page, 'Open a copy of A siding that takes turns').click();
  await page.getByText('Detection coverage').waitFor();
  await stage(page, 'Lock');
  await page.getByRole('radio', { name: 'By itself' }).click();
  await button(page, 'Look how many trains can run').click();
  await page.getByRole('table', { name: 'How many trains can run' }).waitFor();
  await album.take(page, 'cycle');
}

async function takeStories(album: Album): Promise<void> {
  const [oval, context] = await album.open(/^Learning/);
  const url = oval.url();
  await button(oval, /^Signal S2/).click();
  await oval
    .getByRole('button', { name: /^Delete/ })
    .first()
    .click();
  await stage(oval, 'Prove');
  await button(oval, 'Look at every state').click();
  await oval.getByRole('list', { name: 'Verdicts' }).waitFor();
  await album.take(oval, 'prove');
  await oval.getByRole('button', { name: /^Undo: / }).click();

  await stage(oval, 'Survey');
  await button(oval, 'History').click();
  await dialog(oval).getByLabel('Keep the present version as').fill('Before the new gaps');
  await button(oval, 'Keep').click();
  await dialog(oval).getByText('The two are the same.').waitFor();
  await oval.keyboard.press('Escape');
  for (const at of ['90', '200']) await addGap(oval, at);
  await oval.getByText('Saved', { exact: true }).waitFor();
  await button(oval, 'History').click();
  await dialog(oval)
    .getByRole('button', { name: /Before the new gaps/ })
    .click();
  await dialog(oval).getByText('2 differences').waitFor();
  await album.take(oval, 'history');
  await oval.keyboard.press('Escape');

  const second = await context.newPage();
  await second.goto(url);
  await second.getByText('Saved', { exact: true }).waitFor();
  await addGap(oval, '270');
  await oval.getByText('Saved', { exact: true }).waitFor();
  await addGap(second, '330');
  await dialog(second).getByText('Changed in another window too').waitFor();
  await album.take(second, 'conflict');
  await second.close();
}

async function takeRuns(album: Album): Promise<void> {
  const [runs] = await album.open(/^Learning/);
  for (const name of ['As it comes', 'Red train halted']) {
    if (name !== 'As it comes') await button(runs, 'Halt').click();
    await runOn(runs, 40);
    await button(runs, 'Runs').click();
    await dialog(runs).getByLabel('Keep the present run as').fill(name);
    await button(runs, 'Keep').click();
    await dialog(runs).getByLabel(name).check();
    if (name === 'As it comes') {
      await runs.keyboard.press('Escape');
      await runs.getByRole('button', { name: 'Start again' }).click();
    }
  }
  await dialog(runs).getByRole('checkbox', { name: 'As it comes' }).click();
  await button(runs, 'Compare the two chosen').click();
  await dialog(runs)
    .getByText(/They part at|they are the same/)
    .waitFor();
  await album.take(runs, 'runs');
}

async function takeStates(album: Album, address: string): Promise<void> {
  const away = (route: Route) => route.fulfill({ status: 503, json: { problem: 'The database does not answer.' } });
  const never = () => new Promise<void>(() => {});
  const [page] = await album.open(/^Ondrel/);
  await page.getByRole('radio', { name: 'Gap', exact: true }).click();
  await page.getByRole('textbox', { name: 'At', exact: true }).fill('about here');
  await album.keep(page);
  await page.route('**/api/layouts/*', away);
  await addGap(page, '100');
  await page.getByText('Not saved', { exact: true }).waitFor();
  await album.keep(page);
  await page.unroute('**/api/layouts/*');
  await button(page, 'Find a thing or a command').click();
  await page.keyboard.type('xyzzy');
  await album.keep(page);
  await page.keyboard.press('Escape');
  await page.route('**/api/layouts/*/revisions', never);
  await button(page, 'History').click();
  await album.keep(page);
  await page.keyboard.press('Escape');
  await stage(page, 'Prove');
  await button(page, 'Look at every state').click();
  await page.waitForTimeout(1500);
  await album.keep(page);
  await button(page, 'Stop here').click();
  await page
    .getByText(/not finished/)
    .first()
    .waitFor();
  await album.keep(page);
  await stage(page, 'Rehearse');
  await page.route('**/api/layouts/*/runs', away);
  await button(page, 'Runs').click();
  await album.keep(page);
  const empty = { ...learningOval(), trains: [] };
  const made = await page.request.post(`${address}/api/layouts/import`, { data: JSON.stringify(empty) });
  await page.goto(`${address}/layouts/${((await made.json()) as { id: string }).id}`);
  await stage(page, 'Rehearse');
  await album.keep(page);
  await page.goto(address);
  const file = { name: 'notes.json', mimeType: 'text/plain', buffer: Buffer.from('{"format": "notes"}') };
  await page.locator('input[type=file]').setInputFiles(file);
  await page.getByRole('alert').first().waitFor();
  await album.keep(page);
  await album.takeStates();
}

await withScratchApplication(async (address, browser) => {
  const album = new Album(address, browser);
  await takeViews(album);
  await takeRuns(album);
  await takeCycle(album);
  await takeStories(album);
  await takeStates(album, address);
});
