import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { checkDesign } from '../src/core/design';
import {
  and,
  type Compiled,
  compileProgram,
  type Declaration,
  Emitted,
  type Evaluator,
  type Expr,
  Interpreter,
  name,
  not,
  or,
  when,
} from '../src/core/logic';
import { type Rehearsal, replay, TICK_MS } from '../src/core/simulation';
import { straighten } from '../src/core/track';
import { generatedLine } from '../src/demo/generated';
import { ondrelValley } from '../src/demo/ondrel-valley';
import { build, run } from './application';
import { BROWSER } from './browser';
import { Database } from './database';
import { plantDemo } from './demo';
import { freePort } from './ports';

interface Figure {
  name: string;
  value: number;
  unit: string;
  /** The bound it must keep; “at least” where more is better. */
  budget: string;
  ok: boolean;
}

const atMost = (name: string, value: number, unit: string, bound: number): Figure => ({
  name,
  value: round(value),
  unit,
  budget: `at most ${bound}`,
  ok: value <= bound,
});
const atLeast = (name: string, value: number, unit: string, bound: number): Figure => ({
  name,
  value: round(value),
  unit,
  budget: `at least ${bound}`,
  ok: value >= bound,
});
const stated = (name: string, value: number, unit: string): Figure => ({
  name,
  value: round(value),
  unit,
  budget: 'none',
  ok: true,
});
const round = (value: number) => Number(value.toPrecision(4));

function medianMs(times: number, work: () => void): number {
  const taken: number[] = [];
  for (let i = 0; i < times; i++) {
    const from = performance.now();
    work();
    taken.push(performance.now() - from);
  }
  return taken.sort((a, b) => a - b)[Math.floor(times / 2)]!;
}

function designFigures(): Figure[] {
  const [small, large] = [generatedLine(100), generatedLine(1000)];
  medianMs(30, () => checkDesign(small));
  return [
    atMost(
      'sections, rules and findings, 100 blocks',
      medianMs(41, () => checkDesign(small)),
      'ms',
      30,
    ),
    atMost(
      'sections, rules and findings, 1000 blocks',
      medianMs(11, () => checkDesign(large)),
      'ms',
      400,
    ),
    stated(
      'straightened drawing, 1000 blocks',
      medianMs(5, () => straighten(large)),
      'ms',
    ),
    stated(
      'rule program compiled, 100 blocks',
      medianMs(5, () => compileProgram(checkDesign(small).program)),
      'ms',
    ),
    stated('rules of the demo', checkDesign(ondrelValley()).program.declarations.length, 'equations and inputs'),
  ];
}

/** Five thousand rules of the common kinds over forty inputs. */
function manyRules(count: number): Compiled {
  const declarations: Declaration[] = Array.from({ length: 40 }, (_, i) => ({
    name: `i${i}`,
    type: 'bool',
    role: 'input',
  }));
  for (let i = 0; i < count; i++) {
    const a = name(i < 40 ? `i${i}` : `r${i - 1 - ((i * 7) % 30)}`);
    const b = name(`i${(i * 13) % 40}`);
    const kinds: Expr[] = [
      and(a, not(b)),
      or(a, b),
      { op: 'RS', set: a, reset: b, starts: false },
      { op: 'TOF', in: a, ms: 1000, starts: false },
      when(a, b, not(a)),
    ];
    declarations.push({ name: `r${i}`, type: 'bool', role: 'rule', expr: kinds[i % kinds.length] });
  }
  return compileProgram({ scanMs: 20, enums: {}, declarations });
}

function evaluatorFigures(): Figure[] {
  const compiled = manyRules(5000);
  const scanMs = (evaluator: Evaluator) => {
    let scans = 0;
    const run = (count: number) => {
      for (const last = scans + count; scans < last; scans++) {
        evaluator.setInput(scans % 40, scans & 1);
        evaluator.scan(scans * 20);
      }
    };
    run(5000);
    return medianMs(11, () => run(200)) / 200;
  };
  return [
    atMost('5,000 equations, one scan, emitted', scanMs(new Emitted(compiled, false)), 'ms', 0.1),
    stated('5,000 equations, one scan, interpreted', scanMs(new Interpreter(compiled, false)), 'ms'),
    stated(
      '5,000 equations emitted and started',
      medianMs(5, () => new Emitted(compiled)),
      'ms',
    ),
  ];
}

async function servedFigures(): Promise<Figure[]> {
  const scratch = mkdtempSync(join(tmpdir(), 'roblik-bench-'));
  const database = new Database(scratch);
  build();
  await database.start();
  await plantDemo(database.url, false);
  const application = await run({
    port: await freePort(13_800),
    host: '127.0.0.1',
    database: database.url,
    development: false,
  });
  const browser = await chromium.launch(BROWSER);
  try {
    const hour = 3_600_000 / TICK_MS;
    const document = ondrelValley();
    const runOnServer = async () => {
      const from = performance.now();
      const answer = await fetch(`${application.address}/api/layouts/any/replay`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ document, seed: 1, ticks: hour, commands: [] }),
      });
      const { hash } = (await answer.json()) as { hash: string };
      return { hash, times: 3_600_000 / (performance.now() - from) };
    };
    await runOnServer();
    const served = await runOnServer();
    const here: Rehearsal = replay(document, 1, hour, []);
    const figures = [atLeast('demo for an hour, by the server’s route', served.times, 'x real time', 2000)];
    figures.push({
      name: 'trace of that hour the same as here',
      value: served.hash === here.traceHash ? 1 : 0,
      unit: '1 = same',
      budget: 'same',
      ok: served.hash === here.traceHash,
    });

    const loads: number[] = [];
    let bytes = 0;
    let sheetBytes = 0;
    for (let i = 0; i < 5; i++) {
      const context = await browser.newContext();
      const page = await context.newPage();
      const sizes: Promise<number>[] = [];
      page.on('requestfinished', (request) => {
        if (request.resourceType() === 'script') sizes.push(request.sizes().then((s) => s.responseBodySize));
      });
      const from = performance.now();
      await page.goto(application.address, { waitUntil: 'load' });
      loads.push(performance.now() - from);
      bytes = (await Promise.all(sizes)).reduce((a, b) => a + b, 0);
      if (i === 4) {
        await page.getByRole('link', { name: /^Ondrel/ }).click();
        await page.getByText('Detection coverage').waitFor();
        sheetBytes = (await Promise.all(sizes)).reduce((a, b) => a + b, 0);
      }
      await context.close();
    }
    figures.push(atMost('first screen, script compressed', bytes / 1000, 'kB', 250));
    figures.push(atMost('first screen, loaded on loopback', loads.sort((a, b) => a - b)[2]!, 'ms', 1000));
    figures.push(stated('list, line sheet and workers, script compressed', sheetBytes / 1000, 'kB'));
    return figures;
  } finally {
    await browser.close();
    await application.stop();
    await database.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
}

/** Prints every measured figure beside its budget; exits with 1 when one is not kept. */
export async function bench(asJson: boolean): Promise<number> {
  const figures = [...designFigures(), ...evaluatorFigures(), ...(await servedFigures())];
  if (asJson) console.log(JSON.stringify(figures, null, 2));
  else
    for (const f of figures)
      console.log(
        `${f.ok ? 'ok  ' : 'OVER'}  ${f.name.padEnd(52)} ${String(f.value).padStart(9)} ${f.unit}${f.budget === 'none' ? '' : `  (${f.budget})`}`,
      );
  return figures.every((f) => f.ok) ? 0 : 1;
}
