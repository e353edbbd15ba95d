import { fuzz } from '../fuzz/fuzz';
import { withScratchApplication } from '../scratch';
import { bundleCore, runCore } from './bundle';
import { CORE_FIGURES } from './core-figures';
import { countAll, sayCounts } from './counts';
import { type Figure, keeps, type Measured, tell } from './figure';
import { servedFigures } from './served';
import { spinSpeed } from './spin-speed';

const COVERING_SECONDS = 60;
const COVERING: Figure = { name: 'covering test of 300 layouts, from some of them', unit: 's', most: 300 };

/** How long the test takes that holds proofs against rehearsals, from as many layouts as go into a minute. */
function covering(): Measured {
  const from = performance.now();
  let layouts = 0;
  while (performance.now() - from < COVERING_SECONDS * 1000) {
    fuzz({ layouts: 5, seed: 40_000 + layouts, runs: 4, minutes: 5, mostStates: 40_000 }, (line) =>
      console.error(line),
    );
    layouts += 5;
  }
  return { name: COVERING.name, value: (300 * (performance.now() - from)) / layouts / 1000 };
}

/** Prints every figure beside its bound, and every count beside the one that is kept; 1 when one is over. */
export async function bench(asJson: boolean): Promise<number> {
  const all: (Figure & Measured)[] = [];
  const add = (figure: Figure, measured: Measured) => {
    all.push({ ...figure, ...measured });
    if (!asJson) console.log(tell(figure, measured));
  };
  const { file, drop } = await bundleCore();
  if (!asJson) console.log('In brackets: what a loop that is always the same took just before, in ms.');
  await runCore(file, [], (measured) => add(CORE_FIGURES.find(({ name }) => name === measured.name)!, measured));
  drop();
  add(COVERING, covering());
  for (const { value, calibration, ...figure } of spinSpeed()) add(figure, { name: figure.name, value, calibration });
  for (const { value, ...figure } of await withScratchApplication(servedFigures))
    add(figure, { name: figure.name, value });
  const counts = sayCounts(countAll());
  if (asJson) console.log(JSON.stringify({ figures: all, counts: counts.all }, null, 2));
  else for (const line of counts.lines) console.log(line);
  return all.every((one) => keeps(one, one.value)) && counts.over === 0 ? 0 : 1;
}
