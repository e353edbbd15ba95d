import { Explorer, ProofModel } from '../src/core/proof';
import { writePromela } from '../src/core/proof/export';
import { compileSystem } from '../src/core/system';
import { cm } from '../src/core/measure';
import { newDocument } from '../src/core/survey';
import { block, gap, train, vehicle } from '../src/demo/build';
import { writeFileSync } from 'node:fs';
for (const n of [20, 60, 150]) {
  const d = newDocument('Long line');
  d.lines = [{ id: 'a', name: 'A', length: cm(n * 80), drawing: undefined }];
  d.referenceLine = 'a';
  for (let i = 0; i < n; i++) { if (i > 0) d.features.push(gap(`g${i}`, 'a', i * 80)); block(d, `B${i}`, 'a', i * 80 + 40); }
  const rates = { up: 100, down: 150, delayMs: 300, is: 'assumed' } as const;
  d.vehicles = [vehicle('v-engine', 'Engine', 20, [4, 16], () => true, 400)];
  d.trains = [train('tr', 'Goods', ['v-engine'], 40, { line: 'a', at: 60, facing: 'up' }, rates)];
  const t0 = performance.now();
  const model = new ProofModel(compileSystem(d), new Set());
  const e = new Explorer(model);
  for (let i = 0; i < 50 && !e.run(100); i++);
  console.log(n, model.trains[0]!.placements.length, e.states, e.moves, [...e.hazards.keys()], e.finished, performance.now() - t0);
  writeFileSync(`/tmp/long${n}.pml`, writePromela(model));
}
