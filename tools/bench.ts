import type { Browser } from '@playwright/test';
import { checkDesign } from '../src/core/design';
import { divideTrack, fewestAxles } from '../src/core/detection';
import { suggestGaps, usualWishes } from '../src/core/divide';
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
import { countBlockSteps, PlacementsOfTrain, ProofRun, type Switch } from '../src/core/proof';
import { type Rehearsal, replay, TICK_MS } from '../src/core/simulation';
import type { LayoutDocument } from '../src/core/survey';
import { compileSystem } from '../src/core/system';
import { compileTrack, straighten } from '../src/core/track';
import { generatedLine, generatedTraffic, generatedYard } from '../src/demo/generated';
import { learningOval, ring, withTrains } from '../src/demo/learning-oval';
import { ondrelValley } from '../src/demo/ondrel-valley';
import { passingLoop } from '../src/demo/passing-loop';
import { coverageOfTraffic, uncut } from './bench-detect';
import { editTimes } from './bench-edit';
import { signalTimes } from './bench-signal';
import { walkTimes } from './bench-walk';
import { fuzz } from './fuzz/fuzz';
import { withScratchApplication } from './scratch';

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
      15,
    ),
    atMost(
      'sections, rules and findings, 1000 blocks',
      medianMs(11, () => checkDesign(large)),
      'ms',
      120,
    ),
    stated(
      'straightened drawing, 1000 blocks',
      medianMs(5, () => straighten(large)),
      'ms',
    ),
    stated(
      'rule program compiled, 100 blocks',
      medianMs(5, () => compileProgram(compileSystem(small).program)),
      'ms',
    ),
    atMost(
      'fewest resistor axles, 60 wagons and 10 trains',
      medianMs(5, () => fewestAxles(generatedYard(60, 10), { blind: 3_000_000, tail: 400_000 })),
      'ms',
      2000,
    ),
    atMost(
      'suggested gaps, 100 blocks',
      medianMs(9, () => suggestGaps(uncut(100), { ...usualWishes(small), trains: 80 })),
      'ms',
      500,
    ),
    stated(
      'suggested gaps, 1000 blocks',
      medianMs(5, () => suggestGaps(uncut(1000), { ...usualWishes(large), trains: 700 })),
      'ms',
    ),
    atMost('what sensors say of 20 trains in each of 100 blocks', medianMs(9, coverageOfTraffic()), 'ms', 30),
    ...signalFigures(),
    stated('rules of the demo', compileSystem(ondrelValley()).program.declarations.length, 'equations and inputs'),
  ];
}

function signalFigures(): Figure[] {
  const { rules, keystroke, matrix, propose } = signalTimes(medianMs);
  return [
    atMost('all rules written, 100 blocks and 120 signals', rules, 'ms', 30),
    atMost('a keystroke in the rules to its verdict, 100 blocks', keystroke, 'ms', 50),
    atMost('every place against every signal, 100 blocks', matrix, 'ms', 60),
    atMost('signals proposed, 100 blocks', propose, 'ms', 5000),
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

/** Counts frames and the longest task of a page for eight seconds; text, since it runs in the page. */
const COUNT_FRAMES = `new Promise((resolve) => {
  let frames = 0;
  let longest = 0;
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) longest = Math.max(longest, entry.duration);
  }).observe({ type: 'longtask' });
  const from = performance.now();
  const frame = () => {
    frames += 1;
    if (performance.now() - from < 8000) requestAnimationFrame(frame);
    else resolve({ frames, longest });
  };
  requestAnimationFrame(frame);
})`;

/** Twenty trains in the browser with a full graph: what the page's own thread does for each frame, and its longest task. */
async function trafficFigures(browser: Browser, address: string): Promise<Figure[]> {
  const made = await fetch(`${address}/api/layouts/import`, {
    method: 'POST',
    body: JSON.stringify(generatedTraffic(20)),
  });
  const { id } = (await made.json()) as { id: string };
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(`${address}/layouts/${id}`);
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('button', { name: /^Rehearse/ })
    .click();
  await page.getByText('20 trains', { exact: true }).waitFor();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByRole('radio', { name: '50×' }).click();
  await page.waitForTimeout(4000);
  await page.getByRole('radio', { name: '1×', exact: true }).click();
  await page.waitForTimeout(2000);
  const session = await context.newCDPSession(page);
  await session.send('Performance.enable');
  const busy = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    return metrics.find((m) => m.name === 'TaskDuration')!.value * 1000;
  };
  const before = await busy();
  const seen = (await page.evaluate(COUNT_FRAMES)) as { frames: number; longest: number };
  const perFrame = ((await busy()) - before) / seen.frames;
  await context.close();
  return [
    atMost('20 trains, main-thread work a frame', perFrame, 'ms', 4),
    stated('20 trains, frames a second', seen.frames / 8, 'frames'),
    atMost('20 trains, longest task (0: none over 50)', seen.longest, 'ms', 50),
  ];
}

function proofFigures(): Figure[] {
  const ringOf = (blocks: number, trains: number) => {
    const document = ring('Counting', blocks, 100);
    const partition = divideTrack(document, compileTrack(document));
    const point = {
      lengthMm: 0,
      parts: { current: [{ from: 0, to: 0 }], metal: [], vehicle: [], magnet: [], nothing: [] },
      wheelsMm: [0, 0] as [number, number],
      pickUpsMm: [],
    };
    const { placements } = new PlacementsOfTrain(
      partition,
      () => [],
      point,
      { brakingMm: 0, topMmPerS: 0, closes: false },
      false,
    ).from({
      tape: [{ piece: partition.pieces[1]!.index, exit: 1, from: 0, to: 1000 }],
      noseMm: 0,
    });
    const starts = Array.from({ length: trains }, (_, i) => placements.findIndex((p) => p.blocks[0] === i));
    return [{ placements, starts }];
  };
  const movesPerS = (groups: ReturnType<typeof ringOf>, times: number) => {
    let moves = 0;
    const ms = medianMs(times, () => {
      moves = countBlockSteps(groups).moves;
    });
    return moves / ms / 1000;
  };
  const ovals = withTrains(ring('Oval', 12, 120), 4, 120);
  let rate = 0;
  let bytes = 0;
  let rulesMb = 0;
  let statesPerS = 0;
  for (let i = 0; i < 2; i++) {
    const run = new ProofRun(compileSystem(ovals), 400_000);
    const from = performance.now();
    while (!run.step(10_000));
    const ms = performance.now() - from;
    rate = run.progress.moves / ms / 1000;
    statesPerS = (run.progress.states - run.progress.waiting) / ms;
    bytes = run.explorer.bytesAState;
    rulesMb = run.explorer.bytesOfRules / 1e6;
  }
  const timed = (document: LayoutDocument, on?: ReadonlySet<Switch>) => {
    const from = performance.now();
    const run = new ProofRun(compileSystem(document), undefined, on);
    while (!run.step(10_000));
    return { ms: performance.now() - from, states: run.progress.states };
  };
  timed(learningOval());
  const oval = timed(learningOval());
  const loop = timed(passingLoop(['up', 'down']));
  const few = timed(passingLoop(['up', 'down']), new Set());
  const seconds = 60;
  const began = performance.now();
  let layouts = 0;
  while (performance.now() - began < seconds * 1000) {
    fuzz({ layouts: 5, seed: 40_000 + layouts, runs: 4, minutes: 5, mostStates: 40_000 }, (line) =>
      console.error(line),
    );
    layouts += 5;
  }
  const covering = (300 * (performance.now() - began)) / layouts / 1000;
  return [
    atLeast('plant alone, ring of 20 blocks and 6 trains', movesPerS(ringOf(20, 6), 9), 'million moves a s', 5),
    stated('plant alone, 28 blocks and 8 trains, 3.1 million states', movesPerS(ringOf(28, 8), 1), 'million moves a s'),
    atLeast('plant and program, oval of 12 blocks and 4 trains', statesPerS, 'thousand states a s', 100),
    stated('the same, without the moves that are left out', rate, 'million moves a s'),
    atMost('memory of that proof', bytes, 'bytes a state', 56),
    stated('and tables of the rules beside it', rulesMb, 'MB'),
    atMost(`learning oval, ${oval.states} states, proved in`, oval.ms, 'ms', 200),
    atMost(`passing loop, two trains, ${loop.states} states, proved in`, loop.ms, 'ms', 3000),
    stated(`the same with nothing switched on, ${few.states} states`, few.ms, 'ms'),
    atMost(`covering test of 300 layouts, from ${layouts} of them`, covering, 's', 300),
  ];
}

async function servedFigures(address: string, browser: Browser): Promise<Figure[]> {
  const hour = 3_600_000 / TICK_MS;
  const document = ondrelValley();
  const runOnServer = async () => {
    const from = performance.now();
    const answer = await fetch(`${address}/api/layouts/any/replay`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ document, seed: 1, ticks: hour, commands: [] }),
    });
    const { hash } = (await answer.json()) as { hash: string };
    return { hash, times: 3_600_000 / (performance.now() - from) };
  };
  await runOnServer();
  const served = await runOnServer();
  const here: Rehearsal = replay(compileSystem(document), 1, hour, []);
  const figures = [atLeast('demo for an hour, by the server’s route', served.times, 'x real time', 10_000)];
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
    await page.goto(address, { waitUntil: 'load' });
    loads.push(performance.now() - from);
    bytes = (await Promise.all(sizes)).reduce((a, b) => a + b, 0);
    if (i === 4) {
      await page.getByRole('link', { name: /^Ondrel/ }).click();
      await page.getByText('Detection coverage').waitFor();
      sheetBytes = (await Promise.all(sizes)).reduce((a, b) => a + b, 0);
    }
    await context.close();
  }
  const edit = await editTimes(browser, address);
  figures.push(atMost('edit of 1000 blocks, verdict', edit.verdict, 'ms', 100));
  figures.push(atMost('edit of 1000 blocks, longest task (0: none over 50)', edit.longest, 'ms', 50));
  figures.push(
    atMost('typed distance to the redrawn sheet, 100 blocks', edit.drawn, 'ms', 16),
    stated('the same with the wait for the display', edit.shown, 'ms'),
  );
  const walk = await walkTimes(browser, address);
  figures.push(atMost('typed in the walk to the marked place, 100 blocks', walk.small, 'ms', 16));
  figures.push(atMost('the same, 1000 blocks', walk.large, 'ms', 50));
  figures.push(atMost('pasted survey of 2,000 rows, read', walk.pasted, 'ms', 1000));
  figures.push(...(await trafficFigures(browser, address)));
  figures.push(atMost('first screen, script compressed', bytes / 1000, 'kB', 160));
  figures.push(atMost('first screen, loaded on loopback', loads.sort((a, b) => a - b)[2]!, 'ms', 1000));
  figures.push(stated('list, line sheet and workers, script compressed', sheetBytes / 1000, 'kB'));
  return figures;
}

/** Prints every measured figure beside its budget; exits with 1 when one is not kept. */
export async function bench(asJson: boolean): Promise<number> {
  const figures = [
    ...designFigures(),
    ...evaluatorFigures(),
    ...proofFigures(),
    ...(await withScratchApplication(servedFigures)),
  ];
  if (asJson) console.log(JSON.stringify(figures, null, 2));
  else
    for (const f of figures)
      console.log(
        `${f.ok ? 'ok  ' : 'OVER'}  ${f.name.padEnd(52)} ${String(f.value).padStart(9)} ${f.unit}${f.budget === 'none' ? '' : `  (${f.budget})`}`,
      );
  return figures.every((f) => f.ok) ? 0 : 1;
}
